import { cylinder, dial, disc, frequencyInput, gapPort, parameter, make, pathPort, project, type Starter, zero } from './starter.ts';

/** A straight wire along y, an element of an array. */
const rod = (name: string, length: string, x: string) =>
  make('straight-wire', name, { material: 'Copper', axis: 'y', length, radius: 'radius', at: [x, '0 mm', '0 mm'] });

export const wires: Starter[] = [
  {
    kind: 'dipole',
    title: 'Dipole',
    group: 'Antennas',
    about: 'Two straight wires fed in the middle',
    inputs: [frequencyInput('868 MHz')],
    build: ({ f0 }) =>
      project('Dipole', {
        note: 'A wire a little shorter than half a wavelength resonates; the ends act as if longer. About 72 ohm and 2.15 dBi. (C. A. Balanis, Antenna Theory, section 4.6)',
        parameters: [
          parameter('f0', f0, 'frequency'),
          dial(parameter('span', '0.474 * wavelength(f0)', 'tip to tip'), '0.4 * wavelength(f0)', '0.55 * wavelength(f0)'),
          parameter('radius', 'wavelength(f0) / 300', 'of the wire'),
          parameter('gap', '4 * radius', 'where it is fed'),
        ],
        lines: [
          cylinder('upper', 'z', 'radius', '(span - gap) / 2', ['0 mm', '0 mm', 'gap / 2']),
          cylinder('lower', 'z', 'radius', '(span - gap) / 2', ['0 mm', '0 mm', '-span / 2']),
        ],
        ports: [gapPort('feed', 'lower', 'upper', '73 ohm')],
        radiates: true,
      }),
  },
  {
    kind: 'monopole',
    title: 'Monopole on a plate',
    group: 'Antennas',
    about: 'A quarter-wave rod over a round plate',
    inputs: [frequencyInput('868 MHz')],
    build: ({ f0 }) =>
      project('Monopole on a plate', {
        note: 'Over a large plate the rod and its image make a dipole of half the resistance, about 36 ohm. A plate of a wavelength or so tilts the pattern upwards. (Balanis, section 4.7)',
        parameters: [
          parameter('f0', f0, 'frequency'),
          dial(parameter('rod', '0.237 * wavelength(f0)', 'height of the rod'), '0.2 * wavelength(f0)', '0.28 * wavelength(f0)'),
          parameter('radius', 'wavelength(f0) / 200', 'of the rod'),
          parameter('plate', '0.4 * wavelength(f0)', 'radius of the plate'),
          parameter('gap', '2 * radius', 'where it is fed'),
        ],
        lines: [disc('ground', 'plate', zero), cylinder('rod', 'z', 'radius', 'rod', ['0 mm', '0 mm', 'gap'])],
        ports: [gapPort('feed', 'ground', 'rod')],
        radiates: true,
      }),
  },
  {
    kind: 'loop',
    title: 'Loop',
    group: 'Antennas',
    about: 'A square loop of one wavelength around',
    inputs: [frequencyInput('868 MHz')],
    build: ({ f0 }) =>
      project('Loop', {
        note: 'A loop whose way around is about one wavelength resonates and radiates along its axis, with about 120 ohm and 3.3 dBi. (Balanis, section 5.4)',
        parameters: [
          parameter('f0', f0, 'frequency'),
          dial(parameter('way', '1.08 * wavelength(f0)', 'length around'), '0.9 * wavelength(f0)', '1.3 * wavelength(f0)'),
          parameter('side', 'way / 4', 'of the square'),
          parameter('strip', 'wavelength(f0) / 80', 'width of the strip'),
          parameter('gap', 'strip', 'where it is fed'),
        ],
        lines: [
          make('polyline', 'way', {
            points: [
              ['gap / 2', '-side / 2', '0 mm'],
              ['side / 2', '-side / 2', '0 mm'],
              ['side / 2', 'side / 2', '0 mm'],
              ['-side / 2', 'side / 2', '0 mm'],
              ['-side / 2', '-side / 2', '0 mm'],
              ['-gap / 2', '-side / 2', '0 mm'],
            ],
            ends: 'open',
            at: zero,
          }),
          make('trace', 'loop', {
            material: 'Copper',
            path: 'way',
            plane: 'xy',
            width: 'strip',
            thickness: '0 mm',
            corners: 'sharp',
            mitre: '0.6',
            radius: '2 mm',
          }),
        ],
        ports: [pathPort('feed', ['-gap / 2', '-side / 2', '0 mm'], ['gap / 2', '-side / 2', '0 mm'], 'strip', 'y', '120 ohm')],
        radiates: true,
      }),
  },
  {
    kind: 'helix',
    title: 'Helix',
    group: 'Antennas',
    about: 'An axial-mode helix over a round plate',
    inputs: [frequencyInput('1.42 GHz'), { name: 'turns', label: 'number of turns', kind: 'number', otherwise: '6' }],
    build: ({ f0, turns }) =>
      project('Helix antenna', {
        note: 'With one wavelength around each turn and a pitch angle of 12 to 14 degrees it radiates a circular wave along its axis; about 140 ohm. (J. D. Kraus, Antennas, chapter 7)',
        parameters: [
          parameter('f0', f0, 'frequency'),
          parameter('turns', turns, 'number of turns'),
          dial(parameter('around', '1.07 * wavelength(f0)', 'length around one turn'), '0.8 * wavelength(f0)', '1.3 * wavelength(f0)'),
          parameter('pitch', 'around * tan(13 deg)', 'advance in one turn'),
          parameter('radius', 'wavelength(f0) / 120', 'of the wire'),
          parameter('gap', '3 * radius', 'height of the feed'),
          parameter('plate', '0.4 * wavelength(f0)', 'radius of the plate'),
        ],
        lines: [
          disc('ground', 'plate', zero),
          make('helix', 'screw', {
            axis: 'z',
            radius: 'around / (2 * pi)',
            end: 'around / (2 * pi)',
            pitch: 'pitch',
            turns: 'turns',
            sense: 'right',
            phase: '0 deg',
            at: ['0 mm', '0 mm', 'gap + 2 * radius'],
          }),
          make('wire', 'coil', { material: 'Copper', radius: 'radius', path: 'screw' }),
          make('box', 'foot', {
            material: 'Copper',
            size: ['2 * radius', '2 * radius', '3 * radius'],
            anchor: 'base',
            at: ['screw.start.x', 'screw.start.y', 'gap'],
          }),
          make('join', 'winding', { parts: ['coil', 'foot'] }),
        ],
        ports: [
          pathPort('feed', ['screw.start.x', 'screw.start.y', '0 mm'], ['screw.start.x', 'screw.start.y', 'gap'], '2 * radius', 'x', '140 ohm'),
        ],
        radiates: true,
      }),
  },
  {
    kind: 'wire-array',
    title: 'Wire array with directors',
    group: 'Antennas',
    about: 'A driven dipole, a reflector behind and directors before it',
    inputs: [frequencyInput('151 MHz'), { name: 'directors', label: 'number of directors', kind: 'number', otherwise: '3' }],
    build: ({ f0, directors }) =>
      project('Wire array', {
        note: 'A longer parasitic wire reflects, shorter ones direct; spacings of 0.2 wavelength. Lengths are first values to tune from. (P. P. Viezbicke, NBS Technical Note 688, 1976)',
        parameters: [
          parameter('f0', f0, 'frequency'),
          parameter('directors', directors, 'number of directors'),
          parameter('radius', 'wavelength(f0) / 250', 'of the wires'),
          dial(parameter('driven', '0.46 * wavelength(f0)', 'length of the driven wire'), '0.42 * wavelength(f0)', '0.5 * wavelength(f0)'),
          parameter('reflector', '0.482 * wavelength(f0)', 'length of the reflector'),
          parameter('director', '0.428 * wavelength(f0)', 'length of the directors'),
          parameter('step', '0.2 * wavelength(f0)', 'distance between wires'),
        ],
        lines: [
          rod('back', 'reflector', '-step'),
          rod('fed', 'driven', '0 mm'),
          rod('first', 'director', 'step'),
          make('pattern-line', 'front', { of: 'first', count: 'directors', step: ['step', '0 mm', '0 mm'], as: 'many' }),
        ],
        ports: [{ kind: 'wire-port', name: 'feed', wire: 'fed', at: '0.5', resistance: '50 ohm' }],
        solver: 'moment',
        radiates: true,
      }),
  },
  {
    kind: 'spiral',
    title: 'Spiral',
    group: 'Antennas',
    about: 'A two-armed equiangular spiral of strips',
    inputs: [frequencyInput('3 GHz')],
    build: ({ f0 }) =>
      project('Spiral', {
        note: 'Each frequency radiates where the spiral is one wavelength around. A spiral equal to its complement has 60 pi = 188 ohm. f0 is the lowest frequency. (J. D. Dyson, IRE Trans. AP-7, 181, 1959)',
        parameters: [
          parameter('f0', f0, 'lowest frequency'),
          parameter('outer', 'wavelength(f0) / (2 * pi) * 1.15', 'outer radius'),
          parameter('inner', 'outer / 14', 'inner radius'),
          dial(parameter('turns', '1.5', 'of each arm'), '1', '3'),
          parameter('rate', 'log(outer / inner) / (2 * pi * turns)', 'growth of the radius with the angle'),
          parameter('last', '2 * pi * turns', 'angle of the end'),
        ],
        lines: [
          // Out along one edge and back along the other, turned by 90 degrees; both end on one ray.
          make('equation', 'arm', {
            material: 'Copper',
            plane: 'xy',
            curve: [
              'inner * exp(rate * (last - pi / 4 * (1 + sign(2 * t - 1))) * (1 - abs(2 * t - 1))) * cos((last - pi / 4 * (1 + sign(2 * t - 1))) * (1 - abs(2 * t - 1)) + pi / 4 * sign(2 * t - 1))',
              'inner * exp(rate * (last - pi / 4 * (1 + sign(2 * t - 1))) * (1 - abs(2 * t - 1))) * sin((last - pi / 4 * (1 + sign(2 * t - 1))) * (1 - abs(2 * t - 1)) + pi / 4 * sign(2 * t - 1))',
            ],
            from: '0',
            to: '1',
            count: '240',
            at: zero,
          }),
          make('turn', 'other', { of: 'arm', angle: '180 deg', axis: 'z', at: zero, original: 'kept' }),
        ],
        ports: [pathPort('feed', ['-inner * cos(pi / 4)', '0 mm', '0 mm'], ['inner * cos(pi / 4)', '0 mm', '0 mm'], 'inner', 'y', '188 ohm')],
        band: ['f0', '3 * f0'],
        radiates: true,
      }),
  },
];
