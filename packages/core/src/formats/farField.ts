import type { ResultMeta, ResultSet } from '../results/index.ts';

const head = 'far-field 1';

/**
 * A far field as plain text, docs/far-field-format.md: header lines 'key: value' up to an empty line, then for each frequency a line 'frequency: hertz' and
 * lines of theta, phi (degrees) and re, im of E_theta and E_phi (V, coefficients of exp(-jkr)/r). Null where the result has none.
 */
export function writeFarField(result: ResultSet, title: string): string | null {
  const { meta, arrays } = result;
  const kept = meta.farField ?? meta.scattered;
  const array = arrays.farField;
  if (!kept || !array) return null;
  const [nf, nTheta, nPhi] = array.shape;
  const lines = [
    head,
    `title: ${title.replaceAll(/\s+/g, ' ')}`,
    `program: Jade Bell ${meta.coreVersion}`,
    `for: ${meta.dipole ? '1 W that a dipole gives' : meta.farField ? '1 W incident' : 'a plane wave of 1 V/m'}`,
    'convention: exp(+j w t), peak values, E = (value) exp(-jkr)/r',
    'columns: theta_deg phi_deg re_Etheta_V im_Etheta_V re_Ephi_V im_Ephi_V',
    `directions: ${nTheta} ${nPhi}`,
    `frequencies: ${nf}`,
    '',
  ];
  for (let f = 0; f < nf; f++) {
    lines.push(`frequency: ${kept.figures[f].frequency}`);
    const powers = powersOf(meta, f);
    if (powers) lines.push(powers);
    for (let t = 0; t < nTheta; t++)
      for (let p = 0; p < nPhi; p++) {
        const at = 4 * ((f * nTheta + t) * nPhi + p);
        const e = [0, 1, 2, 3].map((c) => array.data[at + c].toExponential(8));
        lines.push(`${Number(((180 * t) / (nTheta - 1)).toFixed(6))} ${Number(((360 * p) / nPhi).toFixed(6))} ${e.join(' ')}`);
      }
  }
  return `${lines.join('\n')}\n`;
}

function powersOf(meta: ResultMeta, f: number): string | null {
  const figures = meta.farField?.figures[f];
  return figures ? `powers: accepted ${figures.accepted} radiated ${figures.radiated}` : null;
}

export interface FarFieldData {
  nTheta: number;
  nPhi: number;
  patterns: { frequency: number; accepted: number | null; radiated: number | null; values: Float64Array }[];
}

/**
 * Reads what writeFarField wrote.
 * @throws Error that names the line at fault.
 */
export function readFarField(text: string): FarFieldData {
  const lines = text.split(/\r?\n/);
  if (lines[0] !== head) throw new Error(`Line 1 is not ‘${head}’: this is no far field of that format.`);
  const sizes = /^directions: (\d+) (\d+)$/m.exec(text);
  if (!sizes) throw new Error('There is no line ‘directions: thetas phis’.');
  const [nTheta, nPhi] = [Number(sizes[1]), Number(sizes[2])];
  const patterns: FarFieldData['patterns'] = [];
  let at = 0;
  lines.slice(lines.indexOf('') + 1).forEach((line, i) => {
    const where = lines.indexOf('') + 2 + i;
    if (!line) return;
    if (line.startsWith('frequency: ')) {
      patterns.push({ frequency: Number(line.slice(11)), accepted: null, radiated: null, values: new Float64Array(4 * nTheta * nPhi) });
      at = 0;
      return;
    }
    const now = patterns[patterns.length - 1];
    const powers = /^powers: accepted (\S+) radiated (\S+)$/.exec(line);
    if (powers && now) return void Object.assign(now, { accepted: Number(powers[1]), radiated: Number(powers[2]) });
    const numbers = line.split(' ').map(Number);
    if (!now || numbers.length !== 6 || !numbers.every(Number.isFinite)) throw new Error(`Line ${where} is not six numbers.`);
    if (at >= now.values.length) throw new Error(`Line ${where} is one direction too many.`);
    now.values.set(numbers.slice(2), at);
    at += 4;
  });
  if (!patterns.length || at !== 4 * nTheta * nPhi) throw new Error('The last pattern is not whole.');
  return { nTheta, nPhi, patterns };
}
