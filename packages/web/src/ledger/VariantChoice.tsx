import { Choice } from '../kit/Choice.tsx';
import { standingAs, switchTo } from '../project/variants.ts';
import { useProject } from '../project/store.ts';

/** Which of its variants the project stands as, and switches to another. */
export function VariantChoice() {
  const variants = useProject((s) => s.document!.variants);
  const standing = useProject((s) => standingAs(s.document!)?.name ?? '');
  if (!variants?.length) return null;
  return (
    <section>
      <header>
        <h2>Variant</h2>
        <Choice
          look="tool"
          label="Variant"
          value={standing}
          options={[
            ...(standing ? [] : [{ value: '', label: 'none of them: it was changed' }]),
            ...variants.map((v) => ({ value: v.name, label: v.name })),
          ]}
          onChange={(name) => {
            const variant = variants.find((v) => v.name === name);
            if (variant) switchTo(variant);
          }}
        />
      </header>
    </section>
  );
}
