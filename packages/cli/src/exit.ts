/** Exit codes, stable for scripts. */
export const exit = {
  good: 0,
  /** The project has errors; they are printed. */
  project: 1,
  /** The command line is wrong. */
  usage: 2,
  /** The run was stopped; what was done is written. */
  stopped: 3,
  /** A file cannot be read or written, or the program itself failed. */
  failed: 4,
} as const;
