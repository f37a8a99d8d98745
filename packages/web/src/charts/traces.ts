/** Colour-blind-safe set of eight with dash patterns as second code; light and dark values. (After M. Okabe and K. Ito, 2008.) */
const light = ['#1F7A5C', '#B04A00', '#2B5EA7', '#8F3D7A', '#7A6A00', '#00798C', '#9A2A2A', '#4B4B4B'];
const dark = ['#5CC7A0', '#F0965A', '#86B2F0', '#DD9BCB', '#D8C64A', '#5CC4D6', '#F08C8C', '#C4C4C4'];
const dashes = ['', '7 3', '2 3', '9 3 2 3', '12 4', '4 2', '1 2', '6 2 1 2 1 2'];

/** Colour and dash of a run by its number: the same on every card. */
export const traceStyle = (number: number, isDark: boolean): { color: string; dash: string } => {
  const i = (number - 1) % 8;
  return { color: (isDark ? dark : light)[i], dash: dashes[i] };
};
