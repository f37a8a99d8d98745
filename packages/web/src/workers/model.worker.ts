import { loadGeometry } from './kernels.ts';
import { modelService } from './modelService.ts';
import type { Request } from './protocol.ts';

const serve = modelService(loadGeometry(), (reply) => postMessage(reply));
self.onmessage = ({ data }: MessageEvent<Request>) => serve(data);
