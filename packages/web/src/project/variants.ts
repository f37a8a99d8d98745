import { type Project, type Variant, variantChanges, variantOf, withVariant } from '@jadebell/core/document';
import { useProject } from './store.ts';

const edit = (label: string, change: (d: Project) => Project): void => useProject.getState().edit(label, change);

/** The variant that the project stands as, if it does as one. */
export const standingAs = (project: Project): Variant | undefined => project.variants?.find((v) => !variantChanges(project, v).length);

export const switchTo = (variant: Variant): void => edit(`switch to ${variant.name}`, (d) => withVariant(d, variant));

/** Keeps the project as it stands, perhaps with other values of some parameters, as a variant; gives its name. */
export function keepVariant(values: Readonly<Record<string, string>> = {}): string {
  const { variants = [] } = useProject.getState().document!;
  const names = new Set(variants.map((v) => v.name));
  let n = variants.length + 1;
  while (names.has(`variant${n}`)) n++;
  const name = `variant${n}`;
  edit('keep as variant', (d) => {
    const stands = variantOf({ ...d, parameters: d.parameters.map((p) => (p.name in values ? { ...p, expression: values[p.name] } : p)) }, name);
    return { ...d, variants: [...(d.variants ?? []), stands] };
  });
  return name;
}

export const changeVariant = (name: string, change: (v: Variant) => Variant): void =>
  edit(`${name} variant`, (d) => ({ ...d, variants: (d.variants ?? []).map((v) => (v.name === name ? change(v) : v)) }));

export const removeVariant = (name: string): void =>
  edit('remove variant', (d) => ({ ...d, variants: (d.variants ?? []).filter((v) => v.name !== name) }));
