import { loadGeometry } from './kernels.ts';
import { modelService } from './modelService.ts';
import type { Request } from './protocol.ts';

const serve = modelService(loadGeometry(), (reply, transfer = []) => postMessage(reply, { transfer }));
self.onmessage = ({ data }: MessageEvent<Request>) => serve(data);
