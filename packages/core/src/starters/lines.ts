import { permittivityOf } from './printed.ts';
import {
  boardInputs,
  box,
  cylinder,
  dial,
  frequencyInput,
  parameter,
  join,
  make,
  mirror,
  pathPort,
  project,
  rect,
  type Starter,
  trace,
  tube,
  zero,
} from './starter.ts';

const impedance = { name: 'z', label: 'impedance', kind: 'number' as const, otherwise: '50' };
const board = (g: Record<string, string>) => [
  parameter('f0', g.f0, 'frequency', 'board'),
  parameter('z', `${g.z ?? '50'} ohm`, 'impedance of the line', 'board'),
  dial(parameter('h', g.h, 'thickness of the board', 'board'), `0.5 * ${g.h}`, `2 * ${g.h}`),
  parameter('er', permittivityOf(g.board), `permittivity of the board; change it with the material (${g.board})`, 'board'),
];
const strip = [
  parameter('w', 'microstrip_width(z, er, h, f0)', 'width of the line, for the impedance', 'line'),
  parameter('eeff', 'microstrip_permittivity(w, er, h, f0)', 'effective permittivity', 'line'),
  parameter('quarter', 'wavelength(f0) / 4 / sqrt(eeff)', 'quarter wavelength on the line', 'line'),
];
/** Ports at the ends of a strip over a ground at z = 0. */
const ends = (left: string, right: string, y = '0 mm') => [
  pathPort('left', [left, y, '0 mm'], [left, y, 'h'], 'w', 'y'),
  pathPort('right', [right, y, '0 mm'], [right, y, 'h'], 'w', 'y'),
];
const inputs = (f: string, h = '0.5 mm') => [frequencyInput(f), ...boardInputs(h)];

export const lines: Starter[] = [
  {
    kind: 'microstrip',
    title: 'Microstrip line',
    group: 'Lines and circuits',
    about: 'A strip over a ground plane with a port at each end',
    inputs: [...inputs('10 GHz'), impedance],
    build: (g) =>
      project('Microstrip line', {
        note: 'The width follows the impedance, the board and the frequency (Hammerstad and Jensen 1980; Kirschning and Jansen 1982).',
        parameters: [
          ...board(g),
          ...strip,
          parameter('l', '4 * quarter', 'length, one wavelength', 'line'),
          parameter('side', '10 * w', 'width of the board', 'board'),
        ],
        lines: [box('substrate', g.board, ['l', 'side', 'h']), rect('ground', ['l', 'side']), rect('strip', ['l', 'w'], ['0 mm', '0 mm', 'h'])],
        ports: ends('strip.min.x', 'strip.max.x'),
        band: ['0.2 * f0', '1.5 * f0'],
      }),
  },
  {
    kind: 'stripline',
    title: 'Stripline',
    group: 'Lines and circuits',
    about: 'A strip midway between two planes',
    inputs: [...inputs('10 GHz', '1 mm'), impedance],
    build: (g) =>
      project('Stripline', {
        note: 'A TEM line without dispersion; its width is exact for a thin strip (Cohn 1954).',
        parameters: [
          ...board(g),
          parameter('w', 'stripline_width(z, er, h, f0)', 'width of the strip', 'line'),
          parameter('l', 'wavelength(f0, er)', 'length, one wavelength', 'line'),
          parameter('side', '8 * h', 'width of the board', 'board'),
        ],
        lines: [
          box('filling', g.board, ['l', 'side', 'h']),
          rect('lower', ['l', 'side']),
          rect('upper', ['l', 'side'], ['0 mm', '0 mm', 'h']),
          rect('strip', ['l', 'w'], ['0 mm', '0 mm', 'h / 2']),
        ],
        ports: [
          pathPort('left', ['strip.min.x', '0 mm', '0 mm'], ['strip.min.x', '0 mm', 'h / 2'], 'w', 'y'),
          pathPort('right', ['strip.max.x', '0 mm', '0 mm'], ['strip.max.x', '0 mm', 'h / 2'], 'w', 'y'),
        ],
        band: ['0.2 * f0', '1.5 * f0'],
      }),
  },
  {
    kind: 'coplanar',
    title: 'Coplanar line',
    group: 'Lines and circuits',
    about: 'A strip between two grounds on a board',
    inputs: [...inputs('10 GHz'), { name: 'gap', label: 'gap', kind: 'length', otherwise: '0.2 mm' }, impedance],
    build: (g) =>
      project('Coplanar line', {
        note: 'The width gives the impedance with this gap (Ghione and Naldi 1984; dispersion after Frankel 1991).',
        parameters: [
          ...board(g),
          parameter('gap', g.gap, 'on each side', 'line'),
          parameter('w', 'coplanar_width(z, gap, er, h, f0)', 'width of the strip', 'line'),
          parameter('l', 'wavelength(f0) / sqrt(coplanar_permittivity(w, gap, er, h, f0))', 'length, one wavelength', 'line'),
          parameter('side', '6 * (w + 2 * gap)', 'width of the board', 'board'),
        ],
        lines: [
          box('substrate', g.board, ['l', 'side', 'h'], ['0 mm', '0 mm', '-h']),
          rect('strip', ['l', 'w']),
          rect('north', ['l', '(side - w) / 2 - gap'], ['-l / 2', 'w / 2 + gap', '0 mm'], 'xy', 'corner'),
          mirror('south', 'north', 'zx'),
        ],
        ports: [
          pathPort('left', ['strip.min.x', '-w / 2 - gap', '0 mm'], ['strip.min.x', '-w / 2', '0 mm'], '0 mm', 'x'),
          pathPort('right', ['strip.max.x', '-w / 2 - gap', '0 mm'], ['strip.max.x', '-w / 2', '0 mm'], '0 mm', 'x'),
        ],
        band: ['0.2 * f0', '1.5 * f0'],
      }),
  },
  {
    kind: 'coax',
    title: 'Coaxial line',
    group: 'Lines and circuits',
    about: 'Two round conductors with a filling between',
    inputs: [
      frequencyInput('5 GHz'),
      { name: 'outer', label: 'inside diameter of the outer conductor', kind: 'length', otherwise: '4.2 mm' },
      { name: 'filling', label: 'filling', kind: 'material', otherwise: 'PTFE' },
      impedance,
    ],
    build: (g) =>
      project('Coaxial line', {
        note: 'A TEM line; the inner diameter follows the impedance and the filling. Ports lie across the filling at both ends.',
        parameters: [
          parameter('f0', g.f0, 'frequency'),
          parameter('z', `${g.z} ohm`, 'impedance'),
          parameter('er', permittivityOf(g.filling), 'permittivity of the filling'),
          parameter('outer', g.outer, 'inside diameter of the outer conductor'),
          parameter('inner', 'coax_inner(z, outer, er)', 'diameter of the inner conductor'),
          parameter('wall', 'outer / 10', 'of the outer conductor'),
          parameter('l', 'wavelength(f0, er)', 'length, one wavelength'),
        ],
        lines: [
          cylinder('filling', 'x', 'outer / 2', 'l', zero, g.filling),
          tube('shield', 'x', 'outer / 2 + wall', 'outer / 2', 'l'),
          cylinder('core', 'x', 'inner / 2', 'l'),
        ],
        ports: [
          pathPort('left', ['0 mm', '0 mm', 'inner / 2'], ['0 mm', '0 mm', 'outer / 2'], '0 mm', 'y', 'z'),
          pathPort('right', ['l', '0 mm', 'inner / 2'], ['l', '0 mm', 'outer / 2'], '0 mm', 'y', 'z'),
        ],
        band: ['0.2 * f0', '1.5 * f0'],
      }),
  },
  {
    kind: 'radial-stub',
    title: 'Radial stub',
    group: 'Lines and circuits',
    about: 'A line with a sector that shorts it over a wide band',
    inputs: inputs('10 GHz'),
    build: (g) =>
      project('Radial stub', {
        note: 'A sector of some 60 degrees and about 0.7 of a quarter wavelength is a short over a wider band than a straight stub. (B. A. Syrett, IEEE Trans. MTT-28, 925, 1980)',
        parameters: [
          ...board(g),
          ...strip,
          dial(parameter('r', '0.72 * quarter', 'radius of the sector', 'stub'), '0.4 * quarter', '1.1 * quarter'),
          parameter('l', '4 * quarter', 'length of the line', 'line'),
          parameter('side', '4 * r', 'width of the board', 'board'),
        ],
        lines: [
          box('substrate', g.board, ['l', 'side', 'h']),
          rect('ground', ['l', 'side']),
          rect('through', ['l', 'w'], ['0 mm', '0 mm', 'h']),
          make('sector', 'fan', {
            material: 'Copper',
            plane: 'xy',
            radius: 'r + w / 2',
            bore: '0 mm',
            from: '60 deg',
            to: '120 deg',
            at: ['0 mm', '0 mm', 'h'],
          }),
          join('strip', ['through', 'fan']),
        ],
        ports: ends('through.min.x', 'through.max.x'),
        band: ['0.4 * f0', '1.6 * f0'],
      }),
  },
  {
    kind: 'coupled-lines',
    title: 'Coupled-line coupler',
    group: 'Lines and circuits',
    about: 'Two parallel strips a quarter wavelength long, with four ports',
    inputs: inputs('6 GHz'),
    build: (g) =>
      project('Coupled-line coupler', {
        note: 'Coupling is strongest where the strips are a quarter wavelength long and grows as the gap narrows; the backward port is coupled. (Pozar, section 7.6)',
        parameters: [
          ...board(g),
          ...strip,
          dial(parameter('gap', '0.25 * h', 'between the strips', 'coupler'), '0.05 * h', '2 * h'),
          parameter('arm', '3 * w', 'of the bent ends', 'coupler'),
          parameter('l', 'quarter + 4 * w', 'of the board', 'board'),
          parameter('side', '2 * arm + 6 * w', 'of the board', 'board'),
        ],
        lines: [
          box('substrate', g.board, ['l', 'side', 'h']),
          rect('ground', ['l', 'side']),
          make('polyline', 'way', {
            points: [
              ['-quarter / 2', '(gap + w) / 2 + arm', 'h'],
              ['-quarter / 2', '(gap + w) / 2', 'h'],
              ['quarter / 2', '(gap + w) / 2', 'h'],
              ['quarter / 2', '(gap + w) / 2 + arm', 'h'],
            ],
            ends: 'open',
            at: zero,
          }),
          trace('north', 'way', 'w'),
          mirror('south', 'north', 'zx'),
        ],
        ports: (
          [
            ['in', '-quarter / 2', ''],
            ['through', 'quarter / 2', ''],
            ['coupled', '-quarter / 2', '-'],
            ['isolated', 'quarter / 2', '-'],
          ] as const
        ).map(([name, x, sign]) => pathPort(name, [x, `${sign}((gap + w) / 2 + arm)`, '0 mm'], [x, `${sign}((gap + w) / 2 + arm)`, 'h'], 'w', 'x')),
        band: ['0.3 * f0', '1.7 * f0'],
      }),
  },
  {
    kind: 'hairpin',
    title: 'Hairpin filter',
    group: 'Lines and circuits',
    about: 'Three folded half-wave resonators with tapped lines',
    inputs: inputs('5 GHz', '0.8 mm'),
    build: (g) =>
      project('Hairpin filter', {
        note: 'Each hairpin is half a wavelength; the gaps set the coupling and so the bandwidth, the taps the match. First values to tune from. (E. G. Cristal, S. Frankel, IEEE Trans. MTT-20, 719, 1972)',
        parameters: [
          ...board(g),
          ...strip,
          parameter('narrow', '0.6 * w', 'width of the resonators', 'resonators'),
          parameter('span', '4 * narrow', 'between the arms of one', 'resonators'),
          dial(parameter('arm', 'quarter - span / 2', 'length of the arms', 'resonators'), '0.8 * quarter', '1.1 * quarter'),
          dial(parameter('gap', '0.5 * narrow', 'between neighbours', 'resonators'), '0.2 * narrow', '2 * narrow'),
          parameter('pitch', 'span + narrow + gap', 'of the resonators', 'resonators'),
          dial(parameter('tap', '0.35 * arm', 'height of the taps', 'resonators'), '0.05 * arm', '0.95 * arm'),
          parameter('lead', '3 * w', 'length of the leads', 'line'),
          parameter('l', '2 * (pitch + span / 2 + narrow / 2 + lead)', 'of the board', 'board'),
          parameter('side', 'arm + 8 * w', 'of the board', 'board'),
        ],
        lines: [
          box('substrate', g.board, ['l', 'side', 'h'], ['0 mm', 'arm / 2', '0 mm']),
          rect('ground', ['l', 'side'], ['0 mm', 'arm / 2', '0 mm']),
          make('polyline', 'pin_path', {
            points: [
              ['-span / 2', 'arm', 'h'],
              ['-span / 2', '0 mm', 'h'],
              ['span / 2', '0 mm', 'h'],
              ['span / 2', 'arm', 'h'],
            ],
            ends: 'open',
            at: zero,
          }),
          trace('pin', 'pin_path', 'narrow', '0 mm', 'sharp'),
          make('turn', 'first', { of: 'pin', angle: '180 deg', axis: 'z', at: ['-pitch / 2', 'arm / 2', '0 mm'], original: 'kept' }),
          make('turn', 'last', { of: 'pin', angle: '180 deg', axis: 'z', at: ['pitch / 2', 'arm / 2', '0 mm'], original: 'kept' }),
          rect('lead_in', ['lead + narrow / 2', 'w'], ['-l / 2', 'arm - tap - w / 2', 'h'], 'xy', 'corner'),
          mirror('lead_out', 'lead_in', 'yz'),
          join('input', ['first', 'lead_in']),
          join('output', ['last', 'lead_out']),
        ],
        ports: ends('lead_in.min.x', 'lead_out.max.x', 'arm - tap'),
        band: ['0.6 * f0', '1.4 * f0'],
      }),
  },
];
