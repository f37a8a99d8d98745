import { type Problem, problemText } from '@jadebell/core/document';

/** Prints a line of what was asked for. */
export const out = (text: string): void => void process.stdout.write(`${text}\n`);
/** Prints a line of what is told besides. */
export const err = (text: string): void => void process.stderr.write(`${text}\n`);
export const printProblems = (problems: readonly Problem[]): void => problems.forEach((p) => err(problemText(p)));
