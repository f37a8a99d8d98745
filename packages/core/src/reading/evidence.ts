import { durationText, formatSI } from '../expressions/format.ts';
import { changeToCome, type Evidence, isSettled, type Pass, type ResultMeta, type TimeEvidence, type WireEvidence } from '../results/index.ts';

type Rows = [what: string, value: string][];

const endings: Record<TimeEvidence['ended'] | WireEvidence['ended'], string> = {
  decayed: 'the energy had decayed',
  settled: 'the waves at the ports had settled',
  steps: 'the step limit was reached',
  stopped: 'stopped by hand',
  solved: 'all was solved',
};

const percents = (list: readonly number[]): string => list.map((b) => `${(100 * b).toFixed(2)} %`).join(', ');
const megabytes = (bytes: number): string => `${Math.max(1, bytes / 1e6).toFixed(0)} MB`;
const threads = (n: number): string => `${n} ${n === 1 ? 'thread' : 'threads'}`;

/** Where a result can be held against itself, as rows of words and figures. */
export function evidenceRows(meta: ResultMeta): Rows {
  const e = meta.evidence;
  const several = meta.ports.length > 1;
  return [
    [
      meta.wave ? 'extinction less scattering and absorption' : `power balance: ${meta.dipole ? 'given' : 'accepted'} less radiated and lost`,
      e.powerBalance ? percents(e.powerBalance) : e.method === 'wires' && e.earth ? 'not told: the rest goes into the earth' : 'needs a far field',
    ],
    ...(!meta.excitations.length
      ? []
      : [[several ? 'largest amplitude out for 1 in (passive up to 1)' : 'largest |S11|', e.largestReflection.toFixed(4)] as [string, string]]),
    ...(e.asymmetry === null ? [] : [['largest difference of S and its transpose', e.asymmetry.toExponential(1)] as [string, string]]),
    ...(e.passes ? passRows(e, e.passes) : []),
    ...(e.method === 'wires' ? wireRows(e) : timeRows(meta, e)),
  ];
}

function passRows(e: Evidence, passes: readonly Pass[]): Rows {
  const told = passes.map((p) => `${p.cells.toLocaleString('en')}${p.change === null ? '' : ` ${p.change.toPrecision(2)}`}`).join('; ');
  const toCome = changeToCome(passes);
  const reached = e.asked === undefined ? null : `${isSettled(passes, e.asked) ? 'reached' : 'not reached'}: below ${e.asked}, twice in a row`;
  return [
    [`passes: ${e.method === 'wires' ? 'unknowns' : 'cells'}, change of the result`, told],
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

const wireRows = (e: WireEvidence): Rows => [
  ['segments, unknowns', `${e.segments.toLocaleString('en')}, ${e.unknowns.toLocaleString('en')}`],
  ['least segments a wavelength', e.segmentsPerWavelength.toFixed(1)],
  ['frequencies solved', `${e.solved}, ${endings[e.ended]}`],
  [
    'rational fit between them',
    e.fitError === null ? 'none: each frequency was solved' : `foretold the last two within ${e.fitError.toExponential(1)}`,
  ],
  ['time', `${durationText(e.seconds)}, ${threads(e.threads)}, ${megabytes(e.bytes)}`],
];

const timeRows = ({ ports }: ResultMeta, e: TimeEvidence): Rows => [
  ['field energy at the end', `${(10 * Math.log10(e.residualEnergy)).toFixed(1)} dB, ${endings[e.ended]}`],
  ...(e.carriedOn
    ? ([
        ['ringing carried on by decaying exponentials', `foretold within ${(100 * e.carriedOn.error).toPrecision(2)} %`],
        [
          'resonances and Q',
          e.carriedOn.resonances
            .slice(0, 6)
            .map((r) => `${formatSI(r.frequency, 'frequency', 5)} ${r.q.toPrecision(3)}`)
            .join('; '),
        ],
      ] as Rows)
    : []),
  ...ports.flatMap(({ name, gap }): Rows =>
    gap
      ? [
          [
            `gap of ${name}, by ${gap.impedance ? 'a reference line' : 'its current spread over the metal across it'}`,
            `${formatSI(gap.capacitance[0], 'capacitance', 3)} across, ${formatSI(gap.inductance[0], 'inductance', 3)} in series;${gap.impedance ? ` it sees ${gap.impedance[0].toPrecision(4)} ohm;` : ''} S off by ${gap.before.toPrecision(2)} with, ${gap.after.toPrecision(2)} without`,
          ],
        ]
      : [],
  ),
  ...(e.gapsKept ?? []).map(({ name, why }): [string, string] => [`gap of ${name} kept`, why]),
  ['least cells a wavelength', e.cellsPerWavelength.toFixed(1)],
  ['cells', e.cells.join(' × ')],
  ['steps', `${e.steps.toLocaleString('en')} of ${(e.timeStep * 1e12).toPrecision(3)} ps`],
  ['pulse at the band’s edges', e.pulseAtEdges.map((d) => `${d.toFixed(1)} dB`).join(', ')],
  ['time', `${durationText(e.seconds)}, ${threads(e.threads)}, ${(e.cellsPerSecond / 1e6).toFixed(0)} Mcell/s, ${megabytes(e.bytes)}`],
];
