/** CSV after RFC 4180: a header row, comma-separated, numbers in full precision, nothing for NaN. Columns must be of one length. */
export function writeCsv(columns: readonly { title: string; values: ArrayLike<number> }[]): string {
  const quote = (t: string): string => (/[",\n]/.test(t) ? `"${t.replaceAll('"', '""')}"` : t);
  const rows = [columns.map((c) => quote(c.title)).join(',')];
  for (let i = 0; i < (columns[0]?.values.length ?? 0); i++)
    rows.push(columns.map((c) => (Number.isNaN(c.values[i]) ? '' : String(c.values[i]))).join(','));
  return `${rows.join('\r\n')}\r\n`;
}
