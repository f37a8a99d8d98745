import { changeToCome, type CommonEvidence, isSettled, type Judged, methodOf, type Pass, type Rows } from '../methods/index.ts';
import type { ResultMeta } from '../results/index.ts';

const percents = (list: readonly number[]): string => list.map((b) => `${(100 * b).toFixed(2)} %`).join(', ');

/** Where a result can be held against itself, as rows of words and figures: what every method tells, then its own. */
export function evidenceRows(meta: ResultMeta): Rows {
  const { ports, excitations, wave, dipole, evidence: e } = meta;
  const method = methodOf(meta.solver);
  const none = method.unbalanced?.(e) ?? 'needs a far field';
  return [
    [
      wave ? 'extinction less scattering and absorption' : `power balance: ${dipole ? 'given' : 'accepted'} less radiated and lost`,
      e.powerBalance ? percents(e.powerBalance) : none,
    ],
    ...(!excitations.length
      ? []
      : [
          [ports.length > 1 ? 'largest amplitude out for 1 in (passive up to 1)' : 'largest |S11|', e.largestReflection.toFixed(4)] as [
            string,
            string,
          ],
        ]),
    ...(e.asymmetry === null ? [] : [['largest difference of S and its transpose', e.asymmetry.toExponential(1)] as [string, string]]),
    ...(e.passes ? [['adaptive accuracy', passText(e, e.passes, method.unit)] as [string, string]] : []),
    ...method.rows(e, ports),
  ];
}

/** What the passes of adaptive accuracy came to, in a sentence. `unit`: what they are made of. */
export function passText({ asked }: Pick<CommonEvidence, 'asked'>, passes: readonly Pass[], unit: string): string {
  const last = passes[passes.length - 1];
  const toCome = changeToCome(passes);
  const count = passes.length === 1 ? 'One pass' : `${passes.length} passes`;
  const changed = last.change === null ? 'nothing to compare it with' : `the last changed the result by ${last.change.toPrecision(2)}`;
  const rest =
    passes.length < 3
      ? ''
      : toCome === null
        ? '; what is to come cannot be told, as changes do not shrink'
        : `; ${toCome.toPrecision(2)} is to come if passes go on so`;
  const reached =
    asked === undefined
      ? ''
      : isSettled(passes, asked)
        ? `. Below ${asked} was asked for, and is reached`
        : `. Below ${asked} was asked for, and is not reached`;
  return `${count} to ${last.cells.toLocaleString('en')} ${unit}: ${changed}${rest}${reached}.`;
}

/** What those who read the results of a run should bear in mind, each in a sentence. */
export function cautionsOf({ solver, evidence }: Judged): string[] {
  const method = methodOf(solver);
  const { passes, asked, ended } = evidence;
  const short = passes && asked !== undefined && ended !== 'stopped' && !isSettled(passes, asked);
  return [...(short ? [passText(evidence, passes, method.unit)] : []), ...(method.cautions?.(evidence) ?? [])];
}
