import { type PointerEvent, type ReactNode, type RefObject, useEffect, useMemo, useRef, useState } from 'react';

/** A picture's size on the screen, pixels, and whether its scale lies below it rather than beside. */
export interface PlaneView {
  width: number;
  height: number;
}
/** A place on a picture, pixels from its upper left. */
export interface Spot {
  x: number;
  y: number;
}

interface Props {
  /** What the picture is fitted into. */
  holder: RefObject<HTMLDivElement | null>;
  view: PlaneView;
  label: string;
  /** Room that is kept for the scale, pixels. */
  room: { right: number; bottom: number };
  /** Fills the pixels; called anew when it is another function. */
  paint(image: ImageData): void;
  /** What stands under the pointer, in words; empty: nothing is told. */
  tell(at: Spot): string;
  /** Lines over the pixels. */
  over: ReactNode;
  scale?: ReactNode;
  /** A line that is drawn out with the pointer. */
  onLine?(from: Spot, to: Spot): void;
  children?: ReactNode;
}

/** Pixels that the pointer is drawn before it is a line. */
const least = 5;

/** A plane to scale: pixels, lines over them, the scale of colours beside, and what is under the pointer. */
export function PlanePicture({ holder, view, label, room, paint, tell, over, scale, onLine, children }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [probe, setProbe] = useState('');
  const [line, setLine] = useState<{ from: Spot; to: Spot } | null>(null);
  const image = useMemo(() => (view.width > 1 && view.height > 1 ? new ImageData(view.width, view.height) : null), [view.width, view.height]);
  useEffect(() => {
    const g = canvas.current?.getContext('2d');
    if (!g || !image) return;
    paint(image);
    g.putImageData(image, 0, 0);
  }, [image, paint]);
  const at = (e: PointerEvent): Spot => {
    const r = e.currentTarget.getBoundingClientRect();
    const within = (v: number, size: number): number => Math.min(size - 1, Math.max(0, Math.floor(v)));
    return { x: within(e.clientX - r.left, view.width), y: within(e.clientY - r.top, view.height) };
  };
  return (
    <div ref={holder} style={{ height: '100%', position: 'relative', display: 'grid', placeItems: 'center', overflow: 'hidden', minHeight: 0 }}>
      <div
        style={{
          position: 'relative',
          width: view.width,
          height: view.height,
          marginRight: room.right,
          marginBottom: room.bottom,
          cursor: onLine ? 'crosshair' : undefined,
          touchAction: onLine ? 'none' : undefined,
        }}
        onPointerMove={(e) => (line ? setLine({ ...line, to: at(e) }) : setProbe(tell(at(e))))}
        onPointerLeave={() => setProbe('')}
        onPointerDown={(e) => {
          if (!onLine) return;
          e.currentTarget.setPointerCapture(e.pointerId);
          setLine({ from: at(e), to: at(e) });
        }}
        onPointerUp={() => {
          if (!line) return;
          setLine(null);
          if (Math.hypot(line.from.x - line.to.x, line.from.y - line.to.y) > least) onLine?.(line.from, line.to);
        }}
      >
        <canvas ref={canvas} width={view.width} height={view.height} role="img" aria-label={label} style={{ display: 'block' }} />
        <svg width={view.width} height={view.height} style={{ position: 'absolute', inset: 0, pointerEvents: 'none', overflow: 'visible' }}>
          {over}
          {line && <line x1={line.from.x} y1={line.from.y} x2={line.to.x} y2={line.to.y} stroke="var(--plum)" strokeWidth={2} />}
        </svg>
      </div>
      <div style={{ position: 'absolute', right: 8, bottom: 4, pointerEvents: 'none' }}>{scale}</div>
      {probe && <div className="mono probe">{probe}</div>}
      {children}
    </div>
  );
}
