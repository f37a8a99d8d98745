import type { CurveForm } from '@jadebell/core/document';
import { curveForms, quantities } from '@jadebell/core/reading';
import { referenceText } from '../../lens/lens.ts';
import type { ShownReading } from '../../lens/useReadings.ts';

/** What an axis is called that tells one quantity. */
export function axisTitle(quantity: string, form: CurveForm | undefined): string {
  const kind = quantities[quantity];
  if (!kind) return '';
  const own = form ?? kind.forms[0];
  const what = quantity === 's' ? 'S' : quantity === 'input' ? 'impedance' : quantity === 'active' ? 'active reflection' : kind.title.toLowerCase();
  if (own === 'phase' || own === 'unwrapped') return `phase of ${what}`;
  if (own === 'vswr') return 'standing wave ratio';
  return own === 'real' || own === 'imaginary' ? (quantity === 'input' ? what : `${curveForms[own].label} of ${what}`) : what;
}

/** What S stands on, in words. */
export function aboutReferences({ network, meta }: ShownReading): string {
  const all = network!.references;
  if (all.every((z) => !z)) return 'modes referred to their own impedance';
  const texts = new Set(all.map((z) => (z ? referenceText([Number(z[0].toPrecision(5)), Number(z[1].toPrecision(5))]) : 'its mode')));
  const changed = all.some(
    (z, c) => z && (Math.abs(z[0] - (meta.ports[c].impedance ?? meta.ports[c].resistance)) > 1e-9 || z[1] !== (meta.ports[c].reactance ?? 0)),
  );
  if (texts.size === 1) return `${changed ? 'referred to' : 'reference'} ${[...texts][0]} ohm`;
  return changed
    ? 'ports on references of their own choice'
    : meta.ports.every((p) => p.mode !== undefined)
      ? 'modes referred to their own impedance'
      : 'each port on its own reference';
}
