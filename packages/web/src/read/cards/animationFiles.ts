import type { FieldCard } from '@jadebell/core/document';
import { type FieldReading, type FieldSlice, readField } from '@jadebell/core/reading';
import type { Run } from '../../api/types.ts';
import { paint, type PictureScale, samples } from '../../charts/FieldPicture.tsx';
import { colourTables } from '../../charts/colours.ts';
import { download } from '../../ui/download.ts';

interface Film {
  slice: FieldSlice;
  reading: FieldReading;
  scale: PictureScale;
  smooth: boolean;
  stem: string;
  run: Run;
  card: FieldCard;
}

const frames = 30;
const longest = 480;

/** The pictures of one period, each as pixels on equal axes. */
function* pictures({ slice, reading, scale, smooth }: Film): Generator<ImageData> {
  const { u, v } = slice;
  const [w, h] = [u[u.length - 1] - u[0], v[v.length - 1] - v[0]];
  const size = longest / Math.max(w, h);
  // Films want even numbers of pixels.
  const [width, height] = [w, h].map((x) => Math.max(2, 2 * Math.round((x * size) / 2)));
  const cols = samples(u, width, false);
  const rows = samples(v, height, true);
  const values = new Float64Array(u.length * v.length);
  const image = new ImageData(width, height);
  for (let n = 0; n < frames; n++) {
    readField(slice, reading, (2 * Math.PI * n) / frames, values);
    paint(image, values, u.length, cols, rows, scale, smooth);
    yield image;
  }
}

/** Films of the field over one period, made from the data, not from the screen. Only instants move. */
export function animationFiles(film: Film): { label: string; act(): Promise<void> }[] {
  if (film.reading.form !== 'instant') return [];
  return [
    { label: 'Film over the phase (GIF)', act: () => gif(film) },
    ...('VideoEncoder' in window ? [{ label: 'Film over the phase (WebM)', act: () => webm(film) }] : []),
  ];
}

async function gif(film: Film): Promise<void> {
  const { GIFEncoder } = await import('gifenc');
  // The map's own colours are the palette: nothing is lost. Its last entry stands for what lies outside.
  const table = colourTables[film.scale.kind];
  const palette = Array.from(table, (c) => [c & 255, (c >> 8) & 255, (c >> 16) & 255]);
  const index = new Map(Array.from(table, (c, i) => [c, i]));
  const encoder = GIFEncoder();
  for (const image of pictures(film)) {
    const pixels = Uint8Array.from(new Uint32Array(image.data.buffer), (c) => index.get(c) ?? 127);
    encoder.writeFrame(pixels, image.width, image.height, { palette, delay: 50 });
  }
  encoder.finish();
  download(`${film.stem}.gif`, new Blob([encoder.bytes() as BlobPart], { type: 'image/gif' }));
}

async function webm(film: Film): Promise<void> {
  const { Muxer, ArrayBufferTarget } = await import('webm-muxer');
  let muxer: InstanceType<typeof Muxer<InstanceType<typeof ArrayBufferTarget>>> | null = null;
  let encoder: VideoEncoder | null = null;
  let n = 0;
  // Three periods, so that a player that does not loop shows something.
  for (let turn = 0; turn < 3; turn++)
    for (const image of pictures(film)) {
      if (!encoder) {
        const { width, height } = image;
        const made = new Muxer({ target: new ArrayBufferTarget(), video: { codec: 'V_VP8', width, height, frameRate: 20 } });
        muxer = made;
        encoder = new VideoEncoder({ output: (chunk, meta) => made.addVideoChunk(chunk, meta), error: () => undefined });
        encoder.configure({ codec: 'vp8', width, height, bitrate: 4_000_000, framerate: 20 });
      }
      const bitmap = await createImageBitmap(image);
      const frame = new VideoFrame(bitmap, { timestamp: n * 50_000, duration: 50_000 });
      encoder.encode(frame, { keyFrame: n % 30 === 0 });
      frame.close();
      bitmap.close();
      n++;
    }
  await encoder?.flush();
  muxer?.finalize();
  if (muxer) download(`${film.stem}.webm`, new Blob([muxer.target.buffer], { type: 'video/webm' }));
}
