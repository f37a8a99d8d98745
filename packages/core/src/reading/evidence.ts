import { changeToCome, type CommonEvidence, isSettled, methodOf, type Pass, type Rows } from '../methods/index.ts';
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
    ...(e.passes ? passRows(e, e.passes, method.unit) : []),
    ...method.rows(e, ports),
  ];
}

function passRows({ asked }: CommonEvidence, passes: readonly Pass[], unit: string): Rows {
  const told = passes.map((p) => `${p.cells.toLocaleString('en')}${p.change === null ? '' : ` ${p.change.toPrecision(2)}`}`).join('; ');
  const toCome = changeToCome(passes);
  const reached = asked === undefined ? null : `${isSettled(passes, asked) ? 'reached' : 'not reached'}: below ${asked}, twice in a row`;
  return [
    [`passes: ${unit}, change of the result`, told],
    ...(reached ? [['change that was asked for', reached] as [string, string]] : []),
    ...(passes.length > 2
      ? [
          ['change to come, if passes go on so', toCome === null ? 'cannot be told: changes do not shrink' : toCome.toPrecision(2)] as [
            string,
            string,
          ],
        ]
      : []),
  ];
}
