declare module 'gifenc' {
  interface Encoder {
    writeFrame(pixels: Uint8Array, width: number, height: number, options: { palette: number[][]; delay: number }): void;
    finish(): void;
    bytes(): Uint8Array;
  }
  export function GIFEncoder(): Encoder;
}
