/** A table as it is seen, as a spreadsheet takes it: cells parted by tabs, a line each row. */
export const tableText = (table: HTMLTableElement): string =>
  [...table.rows].map((row) => [...row.cells].map((cell) => (cell.textContent ?? '').replaceAll(/\s+/g, ' ').trim()).join('\t')).join('\n') + '\n';

/** Puts what the first table within an element shows where a spreadsheet can paste it. */
export async function copyTable(within: ParentNode | null): Promise<void> {
  const table = within?.querySelector('table');
  if (table) await navigator.clipboard.writeText(tableText(table));
}
