import {
  box,
  cut,
  dial,
  disc,
  facePort,
  frequencyInput,
  planePort,
  parameter,
  join,
  make,
  mirror,
  project,
  rect,
  row,
  type Starter,
  zero,
  trace,
  arc,
} from './starter.ts';
import { findMaterial, indexAt } from '../materials/index.ts';
import { emptyProject } from '../document/index.ts';

const c0 = 299792458;
const guide = [
  parameter('a', '15.799 mm', 'width of the guide (WR-62)', 'guide'),
  parameter('b', 'a / 2', 'height of the guide', 'guide'),
  parameter('wall', 'a / 10', 'thickness of the walls', 'guide'),
  parameter('lg', 'guide_wavelength(f0, a, b)', 'guided wavelength', 'guide'),
];
const frequencyParameter = (f0: string) => parameter('f0', f0, 'frequency', 'guide');
/** A straight piece of guide along x: a block and the air in it, which comes later and so wins. */
const straightGuide = (name: string, length: string, at: [string, string, string]) => [
  box(`${name}_metal`, 'Copper', [length, 'a + 2 * wall', 'b + 2 * wall'], at, 'centre'),
  box(`${name}_air`, 'Air', [length, 'a', 'b'], at, 'centre'),
];
/** Refractive index of an optical material at a wavelength, for notes and sizes. */
const indexOf = (material: string, wave: number): string => {
  const m = findMaterial(emptyProject('t'), material);
  return m ? String(Number(indexAt(m, c0 / wave).n.toPrecision(5))) : '1';
};
const cell = [
  dial(parameter('p', '0.5 * wavelength(f0)', 'period of the cell'), '0.3 * wavelength(f0)', '0.7 * wavelength(f0)'),
  parameter('strip', 'p / 20', 'width of the strips'),
];
const opticalInputs = [
  { name: 'w', label: 'wavelength', kind: 'length' as const, otherwise: '1.65 um' },
  { name: 'core', label: 'core', kind: 'material' as const, otherwise: 'Silicon nitride (optical)' },
  { name: 'clad', label: 'cladding', kind: 'material' as const, otherwise: 'Fused silica (optical)' },
];
const metres = (text: string): number => {
  const m = /^\s*([\d.eE+-]+)\s*(um|nm|mm)?/.exec(text);
  return m ? Number(m[1]) * ({ um: 1e-6, nm: 1e-9, mm: 1e-3 }[m[2] ?? 'um'] ?? 1e-6) : 1.65e-6;
};
const chip = (g: Record<string, string>) => [
  parameter('w0', g.w, 'vacuum wavelength', 'chip'),
  parameter('f0', 'c0 / w0', 'frequency', 'chip'),
  parameter('n_core', indexOf(g.core, metres(g.w)), `index of ${g.core} there`, 'chip'),
  parameter('n_clad', indexOf(g.clad, metres(g.w)), `index of ${g.clad} there`, 'chip'),
  dial(
    parameter('width', '0.9 * w0 / sqrt(n_core^2 - n_clad^2)', 'of the core; near the end of single-mode guiding', 'chip'),
    '0.4 * w0 / sqrt(n_core^2 - n_clad^2)',
    '1.5 * w0 / sqrt(n_core^2 - n_clad^2)',
  ),
  parameter('thick', 'width / 2', 'of the core layer', 'chip'),
];
const cladding = (material: string, x: string, y: string, at: [string, string, string] = zero) =>
  box('cladding', material, [x, y, '6 * thick'], at, 'centre');
const band: [string, string] = ['0.95 * f0', '1.05 * f0'];

export const guides: Starter[] = [
  {
    kind: 'guide',
    title: 'Rectangular guide',
    group: 'Guides',
    about: 'A straight guide two guided wavelengths long',
    inputs: [frequencyInput('15 GHz')],
    build: ({ f0 }) =>
      project('Rectangular guide', {
        note: 'Above the cutoff of TE10 and below that of the next mode, twice as high, one mode propagates; the ports take four, so that those below cutoff are seen to decay.',
        parameters: [frequencyParameter(f0), ...guide, parameter('l', '2 * lg', 'length', 'guide')],
        lines: straightGuide('guide', 'l', zero),
        ports: [facePort('left', 'guide_air.xmin', '4'), facePort('right', 'guide_air.xmax', '4')],
        closed: true,
      }),
  },
  {
    kind: 'guide-bend',
    title: 'Guide bend',
    group: 'Guides',
    about: 'A bend in the plane of the electric field, with a mitre',
    inputs: [frequencyInput('15 GHz')],
    build: ({ f0 }) =>
      project('Guide bend', {
        note: 'The cut corner holds the reflection down over the band; its share of the diagonal is the value to tune.',
        parameters: [
          frequencyParameter(f0),
          ...guide,
          parameter('arm', 'lg', 'length of each arm', 'bend'),
          dial(parameter('mitre', '0.45', 'share of the corner’s diagonal cut off', 'bend'), '0.3', '0.75'),
        ],
        lines: [
          make('polyline', 'way', {
            points: [
              ['-arm', '0 mm', '0 mm'],
              ['0 mm', '0 mm', '0 mm'],
              ['0 mm', 'arm', '0 mm'],
            ],
            ends: 'open',
            at: ['0 mm', '0 mm', '-a / 2'],
          }),
          make('trace', 'air_shape', {
            material: 'Air',
            path: 'way',
            plane: 'xy',
            width: 'b',
            thickness: 'a',
            corners: 'mitred',
            mitre: 'mitre',
            radius: '2 mm',
          }),
          make('container', 'metal', {
            material: 'Copper',
            parts: ['air_shape'],
            below: ['0 mm', 'wall', 'wall'],
            above: ['wall', '0 mm', 'wall'],
            gaps: 'filled',
          }),
          make('move', 'air', { material: 'Air', of: 'air_shape', by: zero, original: 'moved' }),
        ],
        ports: [planePort('left', 'x', 'up', '-arm', ['b', 'a']), planePort('up', 'y', 'down', 'arm', ['b', 'a'])],
        closed: true,
      }),
  },
  {
    kind: 'iris-filter',
    title: 'Iris filter',
    group: 'Guides',
    about: 'Two half-wave cavities between three pairs of irises',
    inputs: [frequencyInput('15 GHz')],
    build: ({ f0 }) =>
      project('Iris filter', {
        note: 'Cavities of about half a guided wavelength, coupled through inductive irises; wider openings widen the band. First values to tune from. (G. L. Matthaei et al., Microwave Filters, 1964, chapter 8)',
        parameters: [
          frequencyParameter(f0),
          ...guide,
          dial(parameter('cavity', '0.43 * lg', 'length of the cavities', 'filter'), '0.35 * lg', '0.5 * lg'),
          dial(parameter('outer', '0.52 * a', 'opening of the outer irises', 'filter'), '0.3 * a', '0.8 * a'),
          dial(parameter('inner', '0.36 * a', 'opening of the middle iris', 'filter'), '0.2 * a', '0.6 * a'),
          parameter('thick', 'a / 12', 'of the irises', 'filter'),
          parameter('lead', '0.75 * lg', 'guide before and after', 'filter'),
          parameter('l', '2 * cavity + 3 * thick + 2 * lead', 'of the whole', 'filter'),
        ],
        lines: [
          ...straightGuide('guide', 'l', zero),
          box('iris', 'Copper', ['thick', '(a - outer) / 2', 'b'], ['-cavity - thick', '(a + outer) / 4', '0 mm'], 'centre'),
          mirror('iris_low', 'iris', 'zx'),
          mirror('iris_end', 'iris', 'yz'),
          mirror('iris_end_low', 'iris_low', 'yz'),
          box('middle', 'Copper', ['thick', '(a - inner) / 2', 'b'], ['0 mm', '(a + inner) / 4', '0 mm'], 'centre'),
          mirror('middle_low', 'middle', 'zx'),
        ],
        ports: [facePort('left', 'guide_air.xmin'), facePort('right', 'guide_air.xmax')],
        band: ['0.85 * f0', '1.15 * f0'],
        closed: true,
      }),
  },
  {
    kind: 'horn-pyramidal',
    title: 'Pyramidal horn',
    group: 'Guides',
    about: 'A guide that flares to a rectangular mouth',
    inputs: [frequencyInput('15 GHz'), { name: 'gain', label: 'gain in dB', kind: 'number', otherwise: '17' }],
    build: ({ f0, gain }) =>
      project('Pyramidal horn', {
        note: 'Sides of the mouth for an optimum horn: sqrt(3 lambda length) in the magnetic plane, sqrt(2 lambda length) in the electric one, half the area at work. (Balanis, section 13.4)',
        parameters: [
          frequencyParameter(f0),
          ...guide,
          parameter('gain', gain, 'in dB', 'horn'),
          parameter('area', '10^(gain / 10) * wavelength(f0)^2 / (4 * pi * 0.51)', 'of the mouth', 'horn'),
          parameter('mouth_a', 'sqrt(area * sqrt(1.5))', 'width of the mouth', 'horn'),
          parameter('mouth_b', 'area / mouth_a', 'height of the mouth', 'horn'),
          dial(
            parameter('flare', 'mouth_a^2 / (3 * wavelength(f0)) * (1 - a / mouth_a)', 'length of the flare', 'horn'),
            '0.4 * mouth_a',
            '3 * mouth_a',
          ),
          parameter('lead', 'lg / 2', 'guide before it', 'horn'),
        ],
        lines: [
          box('guide_metal', 'Copper', ['a + 2 * wall', 'b + 2 * wall', 'lead'], ['0 mm', '0 mm', '-lead']),
          make('frustum', 'horn_metal', {
            material: 'Copper',
            axis: 'z',
            from: ['a + 2 * wall', 'b + 2 * wall'],
            to: ['mouth_a + 2 * wall', 'mouth_b + 2 * wall'],
            height: 'flare',
            at: zero,
          }),
          join('metal', ['guide_metal', 'horn_metal']),
          box('guide_air', 'Air', ['a', 'b', 'lead'], ['0 mm', '0 mm', '-lead']),
          make('frustum', 'horn_air', { material: 'Air', axis: 'z', from: ['a', 'b'], to: ['mouth_a', 'mouth_b'], height: 'flare', at: zero }),
          join('air', ['guide_air', 'horn_air']),
          cut('horn', 'metal', ['air']),
        ],
        ports: [planePort('feed', 'z', 'up', '-lead', ['a', 'b'])],
        radiates: true,
      }),
  },
  {
    kind: 'horn-conical',
    title: 'Conical horn',
    group: 'Guides',
    about: 'A round guide that flares to a round mouth',
    inputs: [frequencyInput('15 GHz')],
    build: ({ f0 }) =>
      project('Conical horn', {
        note: 'Mouth diameter sqrt(3 lambda slant) for an optimum horn; TE11 of the round guide cuts off at 1.8412 c/(2 pi r). (A. P. King, Proc. IRE 38, 249, 1950)',
        parameters: [
          parameter('f0', f0, 'frequency'),
          parameter('r', '0.38 * wavelength(f0)', 'radius of the guide; TE11 alone propagates'),
          dial(parameter('slant', '3 * wavelength(f0)', 'length of the flare'), 'wavelength(f0)', '6 * wavelength(f0)'),
          parameter('mouth', 'sqrt(3 * wavelength(f0) * slant) / 2', 'radius of the mouth'),
          parameter('wall', 'wavelength(f0) / 15', 'of the metal'),
          parameter('lead', '0.8 * wavelength(f0)', 'guide before it'),
        ],
        lines: [
          make('revolve', 'horn', {
            material: 'Copper',
            axis: 'z',
            points: [
              ['r', '-lead'],
              ['r + wall', '-lead'],
              ['r + wall', '0 mm'],
              ['mouth + wall', 'slant'],
              ['mouth', 'slant'],
              ['r', '0 mm'],
            ],
            angle: '360 deg',
            at: zero,
          }),
        ],
        ports: [planePort('feed', 'z', 'up', '-lead', ['2 * r + wall', '2 * r + wall'])],
        radiates: true,
      }),
  },
  {
    kind: 'cell-ring',
    title: 'Cell of a ring',
    group: 'Periodic',
    about: 'One period of a screen of rings on a film',
    inputs: [frequencyInput('24 GHz')],
    build: ({ f0 }) =>
      project('Cell of a ring', {
        note: 'A screen of rings stops the band in which a ring is one wavelength around. Let its sides repeat and light it with a plane wave, both under Feed. (B. A. Munk, Frequency Selective Surfaces, 2000)',
        parameters: [
          parameter('f0', f0, 'frequency'),
          ...cell,
          dial(parameter('r', 'wavelength(f0) / (2 * pi) / 1.15', 'mean radius of the ring'), '0.2 * p', '0.45 * p'),
          parameter('film', 'wavelength(f0) / 250', 'thickness of the film'),
        ],
        lines: [
          box('carrier', 'Polyimide film', ['p', 'p', 'film'], ['0 mm', '0 mm', '-film']),
          disc('ring', 'r + strip / 2', zero, 'r - strip / 2'),
        ],
      }),
  },
  {
    kind: 'cell-cross',
    title: 'Cell of a cross',
    group: 'Periodic',
    about: 'One period of a screen of crosses on a film',
    inputs: [frequencyInput('24 GHz')],
    build: ({ f0 }) =>
      project('Cell of a cross', {
        note: 'Each arm pair is a dipole of about half a wavelength for its polarisation. (Munk, 2000)',
        parameters: [
          parameter('f0', f0, 'frequency'),
          ...cell,
          dial(parameter('span', '0.45 * wavelength(f0)', 'tip to tip'), '0.5 * p', '0.95 * p'),
          parameter('film', 'wavelength(f0) / 250', 'thickness of the film'),
        ],
        lines: [
          box('carrier', 'Polyimide film', ['p', 'p', 'film'], ['0 mm', '0 mm', '-film']),
          rect('level', ['span', 'strip']),
          rect('upright', ['strip', 'span']),
          join('cross', ['level', 'upright']),
        ],
      }),
  },
  {
    kind: 'channel',
    title: 'Channel waveguide',
    group: 'Optical',
    about: 'A straight core in a cladding',
    inputs: opticalInputs,
    build: (g) =>
      project('Channel waveguide', {
        note: 'The core guides where its index is above that of the cladding; the width holds it near single-mode. Guided ports at its ends, under Feed, send and take its modes.',
        parameters: [...chip(g), parameter('l', '10 * w0', 'length', 'chip')],
        lines: [cladding(g.clad, 'l', '10 * width'), box('core', g.core, ['l', 'width', 'thick'], zero, 'centre')],
        band,
      }),
  },
  {
    kind: 'channel-coupler',
    title: 'Coupled channel waveguides',
    group: 'Optical',
    about: 'Two cores side by side that exchange light',
    inputs: opticalInputs,
    build: (g) =>
      project('Coupled channel waveguides', {
        note: 'Light passes from one core to the other over a length that grows exponentially with the gap. (A. Yariv, IEEE J. Quantum Electron. 9, 919, 1973)',
        parameters: [
          ...chip(g),
          dial(parameter('gap', '0.3 * width', 'between the cores', 'coupler'), '0.1 * width', 'width'),
          parameter('l', '12 * w0', 'coupling length', 'coupler'),
          parameter('spread', '3 * width', 'sideways in the bends', 'coupler'),
          parameter('bend', '6 * w0', 'length of the bends', 'coupler'),
        ],
        lines: [
          cladding(g.clad, 'l + 2 * bend', '2 * spread + 10 * width'),
          make('spline', 'way', {
            points: [
              ['-l / 2 - bend', '(gap + width) / 2 + spread', '-thick / 2'],
              ['-l / 2 - 0.9 * bend', '(gap + width) / 2 + spread', '-thick / 2'],
              ['-l / 2 - 0.1 * bend', '(gap + width) / 2', '-thick / 2'],
              ['-l / 2', '(gap + width) / 2', '-thick / 2'],
              ['l / 2', '(gap + width) / 2', '-thick / 2'],
              ['l / 2 + 0.1 * bend', '(gap + width) / 2', '-thick / 2'],
              ['l / 2 + 0.9 * bend', '(gap + width) / 2 + spread', '-thick / 2'],
              ['l / 2 + bend', '(gap + width) / 2 + spread', '-thick / 2'],
            ],
            ends: 'open',
          }),
          trace('north', 'way', 'width', 'thick', 'round', g.core),
          mirror('south', 'north', 'zx'),
        ],
        band,
      }),
  },
  {
    kind: 'channel-bend',
    title: 'Bent channel waveguide',
    group: 'Optical',
    about: 'A quarter circle of core',
    inputs: opticalInputs,
    build: (g) =>
      project('Bent channel waveguide', {
        note: 'Light leaks outwards where the bend is too tight; the loss falls exponentially with the radius. (E. A. J. Marcatili, Bell Syst. Tech. J. 48, 2103, 1969)',
        parameters: [...chip(g), dial(parameter('r', '8 * w0', 'radius of the bend', 'bend'), '3 * w0', '20 * w0')],
        lines: [
          box('cladding', g.clad, ['r + 5 * width', 'r + 5 * width', '6 * thick'], ['-5 * width', '-5 * width', '-3 * thick'], 'corner'),
          arc('way', 'r - 3 * width', '0 deg', '90 deg', ['0 mm', '0 mm', '-thick / 2']),
          trace('core', 'way', 'width', 'thick', 'round', g.core),
        ],
        band,
      }),
  },
  {
    kind: 'ring-resonator',
    title: 'Ring resonator',
    group: 'Optical',
    about: 'A ring beside a straight core',
    inputs: opticalInputs,
    build: (g) =>
      project('Ring resonator', {
        note: 'Where a whole number of wavelengths fits around the ring it takes light from the bus. (A. Yariv, Electron. Lett. 36, 321, 2000)',
        parameters: [
          ...chip(g),
          dial(parameter('r', '5 * w0', 'mean radius of the ring', 'ring'), '3 * w0', '15 * w0'),
          dial(parameter('gap', '0.25 * width', 'ring to bus', 'ring'), '0.1 * width', 'width'),
        ],
        lines: [
          cladding(g.clad, '2 * r + 8 * width', '2 * r + 10 * width', ['0 mm', 'r', '0 mm']),
          box('bus', g.core, ['2 * r + 8 * width', 'width', 'thick'], ['0 mm', '-width - gap', '0 mm'], 'centre'),
          make('tube', 'ring', {
            material: g.core,
            axis: 'z',
            radius: 'r + width / 2',
            bore: 'r - width / 2',
            height: 'thick',
            at: ['0 mm', 'r + width / 2 - width / 2', '-thick / 2'],
          }),
        ],
        band,
      }),
  },
  {
    kind: 'grating-coupler',
    title: 'Grating coupler',
    group: 'Optical',
    about: 'Teeth in a core layer that send light upwards',
    inputs: opticalInputs,
    build: (g) =>
      project('Grating coupler', {
        note: 'Period = wavelength / (effective index - n_clad sin(angle)): the first order leaves the chip at the angle. The effective index is first taken as the mean of core and cladding.',
        parameters: [
          ...chip(g),
          parameter('n_eff', '(n_core + n_clad) / 2', 'effective index of the teeth, about', 'grating'),
          parameter('tilt', '8 deg', 'of the beam from the vertical', 'grating'),
          dial(parameter('period', 'w0 / (n_eff - n_clad * sin(tilt))', 'of the teeth', 'grating'), '0.4 * w0', '1.2 * w0'),
          parameter('duty', '0.5', 'share of the period that is tooth', 'grating'),
          parameter('etch', '0.5 * thick', 'depth of the grooves', 'grating'),
          parameter('breadth', '8 * w0', 'of the grating', 'grating'),
          parameter('teeth', '16', 'number of grooves', 'grating'),
        ],
        lines: [
          box('cladding', g.clad, ['teeth * period + 8 * w0', 'breadth + 4 * w0', '8 * thick'], ['0 mm', '0 mm', '0 mm'], 'centre'),
          box('slab', g.core, ['teeth * period + 8 * w0', 'breadth', 'thick'], zero, 'centre'),
          box('groove', g.clad, ['(1 - duty) * period', 'breadth', 'etch'], ['-teeth * period / 2', '0 mm', '(thick - etch) / 2'], 'centre'),
          row('grooves', 'groove', 'teeth', ['period', '0 mm', '0 mm']),
        ],
        band,
      }),
  },
];
