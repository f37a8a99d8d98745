import { type Problem, type Study, variesAbout } from '@jadebell/core/document';
import { Choice, plainOptions } from '../../kit/Choice.tsx';
import { TypedField } from '../../kit/Field.tsx';
import { IconTool } from '../../kit/IconTool.tsx';
import { Close } from '../../kit/icons.tsx';
import { Tool } from '../../kit/Tool.tsx';
import { changeStudy } from './edits.ts';

type Link = NonNullable<Study['links']>[number];

const isCorrelation = (text: string): string | null => (text !== '' && Number(text) > -1 && Number(text) < 1 ? null : 'between -1 and 1');

/** Correlation that a link begins with. */
const usual = 0.8;

/** Which parameters vary together, and how much. */
export function Links({ study, problems }: { study: Study; problems: readonly Problem[] }) {
  const { moves, links = [] } = study;
  const change = (next: Link[]): void => changeStudy(study.name, (s) => ({ ...s, links: next.length ? next : undefined }), 'links');
  const names = moves.filter(variesAbout).map((m) => m.parameter);
  const failing = (n: number): boolean => problems.some((p) => p.place.chip === `links.${n}` || p.place.chip === 'links');
  return (
    <>
      {links.map((link, n) => {
        const set = (next: Partial<Link>): void => change(links.map((l, i) => (i === n ? { ...l, ...next } : l)));
        const end = (key: 'a' | 'b') => (
          <Choice
            look="chip"
            label={`${key === 'a' ? 'First' : 'Second'} of link ${n + 1}`}
            value={link[key]}
            failing={failing(n)}
            options={plainOptions([...new Set([link[key], ...moves.map((m) => m.parameter)])])}
            onChange={(name) => set({ [key]: name })}
          />
        );
        return (
          <div className="statement" key={n} role="group" aria-label={`Link ${n + 1}`}>
            {end('a')} and {end('b')} go together, correlated by
            <TypedField
              mono
              label={`Correlation of link ${n + 1}`}
              width={52}
              value={String(link.by)}
              check={isCorrelation}
              onChange={(t) => set({ by: Number(t) })}
            />
            <IconTool label={`Take link ${n + 1} away`} icon={<Close />} size={14} onClick={() => change(links.filter((_, i) => i !== n))} />
          </div>
        );
      })}
      {names.length > 1 && links.length < (names.length * (names.length - 1)) / 2 && (
        <div className="statement">
          <Tool onClick={() => change([...links, { a: names[0], b: names[1], by: usual }])}>Link two that vary</Tool>
        </div>
      )}
    </>
  );
}
