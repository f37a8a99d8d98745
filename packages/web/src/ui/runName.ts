/** What a run is called: its number, and its name where it has one. */
export const runName = (run: { number: number; name: string }): string => (run.name ? `${run.number} ${run.name}` : String(run.number));
