import { useCallback, useEffect, useRef } from 'react';
import type { ExchangeReply, ExchangeRequest } from '../workers/exchange.protocol.ts';

/** A worker for reading and writing files; ended with the dialog, which also cancels what it does. */
export function useExchange(onReply: (reply: ExchangeReply) => void): { ask(request: ExchangeRequest): void; cancel(): void } {
  const worker = useRef<Worker | null>(null);
  const handler = useRef(onReply);
  useEffect(() => {
    handler.current = onReply;
  });
  const cancel = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
  }, []);
  useEffect(() => cancel, [cancel]);
  const ask = useCallback((request: ExchangeRequest) => {
    if (!worker.current) {
      worker.current = new Worker(new URL('../workers/exchange.worker.ts', import.meta.url), { type: 'module' });
      worker.current.onmessage = ({ data }: MessageEvent<ExchangeReply>) => handler.current(data);
      worker.current.onerror = (e) => handler.current({ kind: 'fault', text: e.message || 'The reader failed.' });
    }
    worker.current.postMessage(request);
  }, []);
  return { ask, cancel };
}
