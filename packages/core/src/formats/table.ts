import Papa from 'papaparse';

/** Rows of a pasted or read table; tabs, semicolons or commas between cells, found from the text. Empty rows are left out, cells trimmed. */
export function parseTable(text: string): string[][] {
  const { data } = Papa.parse<string[]>(text.slice(0, 4_000_000).trim(), { delimitersToGuess: ['\t', ';', ',', '|'], skipEmptyLines: 'greedy' });
  return data.map((row) => row.map((cell) => String(cell).trim()));
}
