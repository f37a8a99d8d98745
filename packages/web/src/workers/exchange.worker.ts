import stepAddress from 'occt-import-js/dist/occt-import-js.wasm?url';
import type { ExchangeRequest } from './exchange.protocol.ts';
import { exchangeService } from './exchangeService.ts';
import { loadGeometry } from './kernels.ts';

const serve = exchangeService(loadGeometry(), stepAddress, (reply) => postMessage(reply));
self.onmessage = ({ data }: MessageEvent<ExchangeRequest>) => serve(data);
