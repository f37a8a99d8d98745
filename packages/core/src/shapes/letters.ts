import type { Point2 } from './recipe.ts';

/**
 * Strokes of letters on a grid four wide and six high, drawn for this project. Each stroke is a row of points: column and row
 * as digits, strokes apart by a space.
 */
const glyphs: Record<string, string> = {
  A: '002640 1232', B: '00063645443303 3342413000', C: '4536160501103041', D: '00062644422000', E: '46060040 0333', F: '460600 0333',
  G: '45361605011030414323', H: '0006 4046 0343', I: '1030 2026 1636', J: '364641301001', K: '0006 460340', L: '060040', M: '0006234640',
  N: '00064046', O: '011030414536160501', P: '00063645443303', Q: '011030414536160501 2240', R: '00063645443303 2340',
  S: '453616050413334241301001', T: '0646 2026', U: '060110304146', V: '062046', W: '0610233046', X: '0046 0640', Y: '062346 2320', Z: '06460040',
  0: '011030414536160501 0145', 1: '152620 1030', 2: '05163645440040', 3: '05163645443313 334241301001', 4: '30360242', 5: '460604344341301001',
  6: '453616050110304142331302', 7: '064610', 8: '13040516364544331302011030414233', 9: '011030414536160504133344',
  '-': '1333', '+': '1333 2224', '.': '2021', '/': '0046', _: '0040',
}; // prettier-ignore

/** Polylines of a text of the given height, from (0, 0); unknown signs leave a space. Metres. */
export function strokesOf(text: string, height: number): Point2[][] {
  const unit = height / 6;
  return [...text.toUpperCase()].flatMap((sign, i) =>
    (glyphs[sign] ?? '')
      .split(' ')
      .filter(Boolean)
      .map((stroke) =>
        Array.from({ length: stroke.length / 2 }, (_, k): Point2 => [(i * 6 + Number(stroke[2 * k])) * unit, Number(stroke[2 * k + 1]) * unit]),
      ),
  );
}
