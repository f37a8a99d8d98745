/** A signal that is given when the program is asked to stop: what runs then ends with what it has. */
export function stopSignal(): AbortSignal {
  const stopper = new AbortController();
  for (const name of ['SIGINT', 'SIGTERM'] as const) process.once(name, () => stopper.abort());
  return stopper.signal;
}
