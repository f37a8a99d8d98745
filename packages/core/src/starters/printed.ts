import { findMaterial } from '../materials/index.ts';
import { emptyProject } from '../document/index.ts';
import { boardInputs, box, cut, dial, disc, frequencyInput, parameter, join, make, pathPort, project, rect, type Starter, zero } from './starter.ts';

/** Permittivity of a board material, for the parameter er. */
export const permittivityOf = (material: string): string => String(findMaterial(emptyProject('t'), material)?.permittivity ?? 1);
const board = (g: Record<string, string>) => [
  parameter('f0', g.f0, 'frequency', 'board'),
  dial(parameter('h', g.h, 'thickness of the board', 'board'), `0.5 * ${g.h}`, `2 * ${g.h}`),
  parameter('er', permittivityOf(g.board), `permittivity of the board; change it with the material (${g.board})`, 'board'),
];
const patchParameters = [
  parameter('w', 'c0 / (2 * f0) * sqrt(2 / (er + 1))', 'width of the patch, for efficient radiation', 'patch'),
  parameter('eeff', 'microstrip_permittivity(w, er, h, f0)', 'effective permittivity under it', 'patch'),
  parameter(
    'dl',
    '0.412 * h * (eeff + 0.3) * (w / h + 0.264) / ((eeff - 0.258) * (w / h + 0.8))',
    'lengthening by the fringing field at each end',
    'patch',
  ),
  dial(
    parameter('l', 'c0 / (2 * f0 * sqrt(eeff)) - 2 * dl', 'length of the patch', 'patch'),
    '0.9 * (c0 / (2 * f0 * sqrt(eeff)) - 2 * dl)',
    '1.1 * (c0 / (2 * f0 * sqrt(eeff)) - 2 * dl)',
  ),
];
const patchNote =
  'Half a wavelength in the board between two radiating edges; the width sets the radiation resistance. (Balanis, Antenna Theory, section 14.2; lengthening by E. O. Hammerstad 1975)';

export const printed: Starter[] = [
  {
    kind: 'patch-inset',
    title: 'Patch, inset feed',
    group: 'Antennas',
    about: 'A rectangular patch with a line that runs in to where it meets 50 ohm',
    inputs: [frequencyInput('9.6 GHz'), ...boardInputs('0.8 mm')],
    build: (g) =>
      project('Patch, inset feed', {
        note: `${patchNote} Inset by y the resistance falls as cos^2(pi y / l).`,
        parameters: [
          ...board(g),
          ...patchParameters,
          parameter('edge_r', '90 * er^2 / (er - 1) * (l / w)^2 * 1 ohm', 'resistance at the edge, about', 'feed'),
          parameter('w50', 'microstrip_width(50 ohm, er, h, f0)', 'width of the feeding line', 'feed'),
          dial(parameter('inset', 'l / pi * acos(sqrt(min(1, 50 ohm / edge_r)))', 'how far the line runs in', 'feed'), '0.05 * l', '0.45 * l'),
          parameter('slit', 'w50 / 2', 'gap beside the line', 'feed'),
          parameter('side', '2 * max(l, w) + 6 * h', 'of the board', 'board'),
        ],
        lines: [
          box('substrate', g.board, ['side', 'side', 'h']),
          rect('ground', ['side', 'side']),
          rect('patch_full', ['l', 'w'], ['0 mm', '0 mm', 'h']),
          rect('notch', ['inset', 'w50 + 2 * slit'], ['-l / 2', '-w50 / 2 - slit', 'h'], 'xy', 'corner'),
          cut('patch_cut', 'patch_full', ['notch']),
          rect('line', ['side / 2 - l / 2 + inset', 'w50'], ['-side / 2', '-w50 / 2', 'h'], 'xy', 'corner'),
          join('patch', ['patch_cut', 'line']),
        ],
        ports: [pathPort('feed', ['line.min.x', '0 mm', '0 mm'], ['line.min.x', '0 mm', 'h'], 'w50', 'y')],
        band: ['0.85 * f0', '1.15 * f0'],
        radiates: true,
      }),
  },
  {
    kind: 'patch-probe',
    title: 'Patch, probe feed',
    group: 'Antennas',
    about: 'A rectangular patch fed from below',
    inputs: [frequencyInput('9.6 GHz'), ...boardInputs('0.8 mm')],
    build: (g) =>
      project('Patch, probe feed', {
        note: `${patchNote} The probe stands where the resistance is 50 ohm.`,
        parameters: [
          ...board(g),
          ...patchParameters,
          parameter('edge_r', '90 * er^2 / (er - 1) * (l / w)^2 * 1 ohm', 'resistance at the edge, about', 'feed'),
          dial(
            parameter('probe', 'l / pi * asin(sqrt(min(1, 50 ohm / edge_r)))', 'from the middle along the length', 'feed'),
            '0.02 * l',
            '0.48 * l',
          ),
          parameter('side', '2 * max(l, w) + 6 * h', 'of the board', 'board'),
        ],
        lines: [box('substrate', g.board, ['side', 'side', 'h']), rect('ground', ['side', 'side']), rect('patch', ['l', 'w'], ['0 mm', '0 mm', 'h'])],
        ports: [pathPort('feed', ['-probe', '0 mm', '0 mm'], ['-probe', '0 mm', 'h'], '0 mm', 'y')],
        band: ['0.85 * f0', '1.15 * f0'],
        radiates: true,
      }),
  },
  {
    kind: 'patch-round',
    title: 'Round patch',
    group: 'Antennas',
    about: 'A circular patch fed from below',
    inputs: [frequencyInput('5.8 GHz'), ...boardInputs('1.5 mm')],
    build: (g) =>
      project('Round patch', {
        note: 'The TM11 mode of a disc: 1.8412 / (effective radius) is its wave number. (Balanis, section 14.3)',
        parameters: [
          ...board(g),
          parameter('f', '1.8412 * c0 / (2 * pi * f0 * sqrt(er))', 'effective radius', 'patch'),
          dial(parameter('r', 'f / sqrt(1 + 2 * h / (pi * er * f) * (log(pi * f / (2 * h)) + 1.7726))', 'radius', 'patch'), '0.9 * f', '1.05 * f'),
          dial(parameter('probe', '0.3 * r', 'from the centre', 'feed'), '0.1 * r', '0.9 * r'),
          parameter('side', '4 * r', 'of the board', 'board'),
        ],
        lines: [box('substrate', g.board, ['side', 'side', 'h']), rect('ground', ['side', 'side']), disc('patch', 'r', ['0 mm', '0 mm', 'h'])],
        ports: [pathPort('feed', ['-probe', '0 mm', '0 mm'], ['-probe', '0 mm', 'h'], '0 mm', 'y')],
        radiates: true,
      }),
  },
  {
    kind: 'inverted-f',
    title: 'Inverted F',
    group: 'Antennas',
    about: 'A printed arm along the edge of a ground, shorted at one end',
    inputs: [frequencyInput('868 MHz'), ...boardInputs('1 mm', 'Glass-epoxy laminate')],
    build: (g) =>
      project('Inverted F', {
        note: 'Height and arm together are a quarter of the wavelength that the board shortens; the feed is tapped where it meets 50 ohm.',
        parameters: [
          ...board(g),
          parameter('quarter', 'wavelength(f0) / 4 / sqrt((1 + er) / 2 * 0.55 + 0.45)', 'shortened quarter wavelength', 'arm'),
          parameter('rise', '0.12 * quarter', 'height over the edge', 'arm'),
          parameter('strip', 'quarter / 40', 'width of the strips', 'arm'),
          dial(parameter('arm', 'quarter - rise', 'length of the arm', 'arm'), '0.7 * quarter', '1.2 * quarter'),
          dial(parameter('tap', '0.1 * quarter', 'short to feed', 'arm'), '0.03 * quarter', '0.3 * quarter'),
          parameter('gap', 'strip', 'where it is fed', 'arm'),
          parameter('length', 'max(1.3 * arm, 0.35 * wavelength(f0))', 'of the ground', 'board'),
          parameter('depth', '0.15 * wavelength(f0)', 'of the ground', 'board'),
        ],
        lines: [
          box('carrier', g.board, ['length', 'depth + 2 * rise', 'h'], ['length / 2', 'rise - depth / 2', '-h']),
          rect('ground', ['length', 'depth'], ['0 mm', '-depth', '0 mm'], 'xy', 'corner'),
          rect('short', ['strip', 'rise + strip'], zero, 'xy', 'corner'),
          rect('tip', ['arm', 'strip'], ['0 mm', 'rise', '0 mm'], 'xy', 'corner'),
          rect('leg', ['strip', 'rise - gap'], ['tap', 'gap', '0 mm'], 'xy', 'corner'),
          join('element', ['short', 'tip', 'leg']),
        ],
        ports: [pathPort('feed', ['tap + strip / 2', '0 mm', '0 mm'], ['tap + strip / 2', 'gap', '0 mm'], 'strip', 'x')],
        radiates: true,
      }),
  },
  {
    kind: 'slot',
    title: 'Slot',
    group: 'Antennas',
    about: 'A half-wave slot in a plate, fed across',
    inputs: [frequencyInput('3 GHz')],
    build: ({ f0 }) =>
      project('Slot', {
        note: 'The slot is the complement of a strip dipole: its resistance times that of the dipole is (376.7/2)^2, so about 490 ohm in the middle. Fed off the middle it falls. (H. G. Booker, J. IEE 93, 620, 1946)',
        parameters: [
          parameter('f0', f0, 'frequency'),
          dial(parameter('l', '0.47 * wavelength(f0)', 'length of the slot'), '0.4 * wavelength(f0)', '0.55 * wavelength(f0)'),
          parameter('w', 'wavelength(f0) / 50', 'width of the slot'),
          parameter('off', '0.36 * l', 'feed from the middle'),
          parameter('side', '1.2 * wavelength(f0)', 'of the plate'),
        ],
        lines: [rect('plate', ['side', 'side']), rect('hole', ['l', 'w']), cut('sheet', 'plate', ['hole'])],
        ports: [pathPort('feed', ['off', '-w / 2', '0 mm'], ['off', 'w / 2', '0 mm'], '0 mm', 'x', '200 ohm')],
        radiates: true,
      }),
  },
  {
    kind: 'tapered-slot',
    title: 'Tapered slot',
    group: 'Antennas',
    about: 'A slot that opens exponentially, radiating along the board',
    inputs: [frequencyInput('3 GHz'), ...boardInputs('0.8 mm')],
    build: (g) =>
      project('Tapered slot', {
        note: 'A travelling wave leaves the slot where it is about half a wavelength wide; f0 is the lowest frequency. (P. J. Gibson, 9th European Microwave Conference, 101, 1979)',
        parameters: [
          ...board(g),
          parameter('mouth', '0.6 * wavelength(f0)', 'opening', 'taper'),
          parameter('l', '1.2 * wavelength(f0)', 'length of the taper', 'taper'),
          parameter('slot', 'wavelength(f0) / 150', 'width of the slot at its end', 'taper'),
          parameter('rate', 'log(mouth / slot) / l', 'of the exponential', 'taper'),
          parameter('back', '0.25 * wavelength(f0)', 'behind the taper', 'taper'),
        ],
        lines: [
          box('carrier', g.board, ['l + back', 'mouth + 4 * slot', 'h'], ['(l - back) / 2', '0 mm', '-h']),
          // Along the exponential edge, and back along the outer one: t from 0 to 1 and on to 2.
          make('equation', 'flare', {
            material: 'Copper',
            plane: 'xy',
            curve: [
              'l * (1 - abs(t - 1))',
              'max(slot / 2 * exp(rate * l * (1 - abs(t - 1))), (mouth / 2 + 2 * slot) * (0.5 + 0.5 * sign(t - 1.000001)))',
            ],
            from: '0',
            to: '2',
            count: '121',
            at: zero,
          }),
          rect('rear', ['back', 'mouth / 2 + 2 * slot - slot / 2'], ['-back', 'slot / 2', '0 mm'], 'xy', 'corner'),
          join('upper', ['flare', 'rear']),
          make('mirror', 'lower', { of: 'upper', plane: 'zx', at: '0 mm', original: 'kept' }),
          rect('bridge', ['back / 20', 'slot'], ['-back', '-slot / 2', '0 mm'], 'xy', 'corner'),
          join('wings', ['upper', 'lower', 'bridge']),
        ],
        ports: [pathPort('feed', ['-back / 2', '-slot / 2', '0 mm'], ['-back / 2', 'slot / 2', '0 mm'], '0 mm', 'x', '100 ohm')],
        band: ['f0', '3 * f0'],
        radiates: true,
      }),
  },
];
