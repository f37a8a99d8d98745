import { microstripImpedance, microstripPermittivity, striplineImpedance } from '@jadebell/core/formulas';
import { c0, eta0, mu0 } from '@jadebell/core/numerics';
import { plainBody } from '../bench.ts';
import type { Case, Row } from '../case.ts';
import { bar, copper, dielectric, long, rod, row, sectionAcross, solved } from './parts.ts';

/** Perfect strip of no thickness across y at height `at`. */
const strip = (name: string, order: number, x0: number, x1: number, at: number): ReturnType<typeof plainBody> => {
  // In the plane of a sheet across y the axes are z, x.
  const body = plainBody(name, order, { name: 'metal', kind: 'conductor' }, { form: 'sheet', normal: 1, offset: at, loops: [[[-long, x0], [long, x0], [long, x1], [-long, x1]]] }); // prettier-ignore
  return body;
};

/**
 * Impedance of a microstrip by power and current over its static value, at f h in GHz mm; e0 and ef are the static effective
 * permittivity and that at f (R. H. Jansen, M. Kirschning, Arch. Elektr. Uebertr. 37, 108, 1983; within 1 % up to u = 18).
 */
function powerCurrentRatio(u: number, er: number, fh: number, e0: number, ef: number): number {
  const r1 = 0.03891 * er ** 1.4;
  const r2 = 0.267 * u ** 7;
  const r3 = 4.766 * Math.exp(-3.228 * u ** 0.641);
  const r4 = 0.016 + (0.0514 * er) ** 4.524;
  const r5 = (fh / 28.843) ** 12;
  const r6 = 22.2 * u ** 1.92;
  const r7 = 1.206 - 0.3144 * Math.exp(-r1) * (1 - Math.exp(-r2));
  const r8 = 1 + 1.275 * (1 - Math.exp(-0.004625 * r3 * er ** 1.674 * (fh / 18.365) ** 2.745));
  const r9 = (((5.086 * r4 * r5) / (0.3838 + 0.386 * r4)) * (Math.exp(-r6) / (1 + 1.2992 * r5)) * (er - 1) ** 6) / (1 + 10 * (er - 1) ** 6);
  const r10 = 0.00044 * er ** 2.136 + 0.0184;
  const r11 = (fh / 19.47) ** 6 / (1 + 0.0962 * (fh / 19.47) ** 6);
  const r12 = 1 / (1 + 0.00245 * u * u);
  const r13 = 0.9408 * ef ** r8 - 0.9603;
  const r14 = (0.9408 - r9) * e0 ** r8 - 0.9603;
  const r15 = 0.707 * r10 * (fh / 12.3) ** 1.097;
  const r16 = 1 + 0.0503 * er * er * r11 * (1 - Math.exp(-((u / 15) ** 6)));
  const r17 = r7 * (1 - 1.1241 * (r12 / r16) * Math.exp(-0.026 * fh ** 1.15656 - r15));
  return (r13 / r14) ** r17;
}

/** A microstrip over 1 to 20 GHz, in a box 24 boards high, with a plane of symmetry through the strip. */
export const microstripModes: Case = {
  name: 'microstrip-modes',
  title: 'Section: microstrip, 0.6 mm on 0.3 mm of permittivity 3.5, 1 to 20 GHz',
  slow: false,
  async run(host) {
    const [w, h, er] = [0.6e-3, 0.3e-3, 3.5];
    const rows: Row[] = [];
    const bodies = [plainBody('board', 0, dielectric(er), bar(-8e-3, 8e-3, 0, h)), strip('strip', 1, -w / 2, w / 2, h)];
    for (const f of [1e9, 10e9, 20e9]) {
      const s = sectionAcross({
        min: [0, 0],
        max: [24 * h, 24 * h],
        // At the plane of symmetry H stands across; the box is metal.
        edges: ['magnetic', 'electric', 'electric', 'electric'],
        frequency: f,
        grid: { perWavelength: 20 },
        boxes: [{ min: [0, 0], max: [0.45e-3, 0.45e-3], cell: 0.015e-3 }],
      });
      const r = await solved(host, bodies, s);
      const [figures] = r.figures;
      const name = `at ${f / 1e9} GHz`;
      const [e0, ef] = [microstripPermittivity(w, er, h, 1e3), microstripPermittivity(w, er, h, f)];
      const z = microstripImpedance(w, er, h, 1e3) * powerCurrentRatio(w / h, er, f * h * 1e-6, e0, ef);
      rows.push(row(`effective permittivity ${name}`, 'Hammerstad and Jensen 1980, Kirschning and Jansen 1982', [figures.index[0] ** 2, ef], 1, r));
      // Half of the line carries half of the power and current: the whole has half the impedance.
      rows.push(row(`impedance by power and current ${name}`, 'Hammerstad and Jensen 1980, Jansen and Kirschning 1983', [figures.line!.powerCurrent / 2, z], 1, r)); // prettier-ignore
    }
    return rows;
  },
};

export const striplineModes: Case = {
  name: 'stripline-modes',
  title: 'Section: stripline, 0.5 mm strip midway between planes at 1 mm',
  slow: false,
  async run(host) {
    const [w, b, er] = [0.5e-3, 1e-3, 2.2];
    const bodies = [plainBody('fill', 0, dielectric(er), bar(-9e-3, 9e-3, 0, b)), strip('strip', 1, -w / 2, w / 2, b / 2)];
    const s = sectionAcross({
      min: [0, 0],
      max: [4e-3, b],
      edges: ['magnetic', 'electric', 'electric', 'electric'],
      frequency: 5e9,
      grid: { perWavelength: 20 },
      boxes: [{ min: [0, 0], max: [0.6e-3, b], cell: 0.02e-3 }],
    });
    const r = await solved(host, bodies, s);
    return [row('impedance by power and voltage', 'exact (Cohn 1954)', [r.figures[0].line!.powerVoltage / 2, striplineImpedance(w, er, b)], 0.5, r)];
  },
};

/** Attenuation of guides of copper by the power-loss method. */
export const copperLoss: Case = {
  name: 'copper-loss',
  title: 'Section: copper coax and rectangular guide',
  slow: false,
  async run(host) {
    const resistance = (f: number): number => Math.sqrt((Math.PI * f * mu0) / 5.8e7);
    const rows: Row[] = [];
    const [a, b, er, f] = [0.625e-3, 2.095e-3, 2.1, 3e9];
    const coax = [plainBody('outer', 0, copper, bar(-3e-3, 3e-3, -3e-3, 3e-3)), plainBody('fill', 1, dielectric(er), rod(b)), plainBody('pin', 2, copper, rod(a))]; // prettier-ignore
    for (const cell of [0.08e-3, 0.04e-3]) {
      const r = await solved(
        host,
        coax,
        sectionAcross({ min: [-2.5e-3, -2.5e-3], max: [2.5e-3, 2.5e-3], frequency: f, grid: { cell: [cell, cell] } }),
      );
      const z = (eta0 / 2 / Math.PI / Math.sqrt(er)) * Math.log(b / a);
      const alpha = (resistance(f) / 4 / Math.PI / z) * (1 / a + 1 / b);
      const name = `coax, cell ${cell * 1e6} um`;
      rows.push(row(`${name}: impedance`, 'closed form', [r.figures[0].line!.powerVoltage, z], 0.5, r));
      rows.push(row(`${name}: attenuation, Np/m`, 'closed form (Pozar, Microwave Engineering, eq. 2.107)', [r.figures[0].alpha, alpha], 5, r));
    }
    const [p, q, g] = [15.8e-3, 7.9e-3, 15e9];
    const tube = [
      plainBody('walls', 0, copper, bar(-10e-3, 10e-3, -6e-3, 6e-3)),
      plainBody('air', 1, dielectric(1), bar(-p / 2, p / 2, -q / 2, q / 2)),
    ];
    const k = (2 * Math.PI * g) / c0;
    const beta = Math.sqrt(k * k - (Math.PI / p) ** 2);
    const alpha = (resistance(g) * (2 * q * Math.PI ** 2 + p ** 3 * k * k)) / (p ** 3 * q * beta * k * eta0);
    const r = await solved(host, tube, sectionAcross({ min: [-9e-3, -5e-3], max: [9e-3, 5e-3], frequency: g, grid: { perWavelength: 50 } }));
    rows.push(row('WR-62: phase constant of TE10, rad/m', 'closed form', [r.figures[0].beta, beta], 0.05, r));
    rows.push(row('WR-62: attenuation of TE10, Np/m', 'closed form (Pozar, eq. 3.96)', [r.figures[0].alpha, alpha], 5, r));
    return rows;
  },
};
