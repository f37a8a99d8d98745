/** An entity of a drawing: its kind and its values by group code, in order. */
export interface Entity {
  type: string;
  layer: string;
  /** First value of a code as a number; `otherwise` where it is missing or none. */
  number(code: number, otherwise?: number): number;
  text(code: number): string;
  /** All values of some codes in order, as pairs of code and number. */
  numbers(codes: readonly number[]): [number, number][];
  /** Points of the codes (x, y) in order, with the bulge (42) that follows each. */
  points(): { x: number; y: number; bulge: number }[];
  /** Vertices of a polyline of the older kind. */
  vertices: Entity[];
}
export interface Block {
  x: number;
  y: number;
  entities: Entity[];
}
export interface Drawing {
  /** $INSUNITS of the header, or null. */
  units: number | null;
  blocks: Map<string, Block>;
  entities: Entity[];
}

type Tag = [number, string];

class TagEntity implements Entity {
  readonly vertices: Entity[] = [];
  constructor(
    readonly type: string,
    private readonly tags: Tag[],
  ) {}
  get layer(): string {
    return this.text(8);
  }
  text(code: number): string {
    return this.tags.find((t) => t[0] === code)?.[1] ?? '';
  }
  number(code: number, otherwise = NaN): number {
    const v = parseFloat(this.text(code));
    return Number.isFinite(v) ? v : otherwise;
  }
  numbers(codes: readonly number[]): [number, number][] {
    return this.tags.filter((t) => codes.includes(t[0])).map(([c, v]) => [c, parseFloat(v)]);
  }
  points(): { x: number; y: number; bulge: number }[] {
    const out: { x: number; y: number; bulge: number }[] = [];
    for (const [code, v] of this.numbers([10, 20, 42])) {
      if (code === 10) out.push({ x: v, y: 0, bulge: 0 });
      else if (out.length && code === 20) out[out.length - 1].y = v;
      else if (out.length) out[out.length - 1].bulge = v;
    }
    return out;
  }
}

/** Reads the tags of a DXF text: pairs of lines, a group code and a value. What is out of place is passed over, so that it always ends. */
export function readDrawing(text: string): Drawing {
  const lines = text.split(/\r\n|\r|\n/);
  const drawing: Drawing = { units: null, blocks: new Map(), entities: [] };
  let section = '';
  let block: Block | null = null;
  let polyline: Entity | null = null;
  let variable = '';
  let kind = '';
  let tags: Tag[] = [];
  const finish = (): void => {
    if (!kind) return;
    const entity = new TagEntity(kind, tags);
    if (kind === 'SECTION') section = entity.text(2);
    else if (kind === 'BLOCK') {
      block = { x: entity.number(10, 0), y: entity.number(20, 0), entities: [] };
      drawing.blocks.set(entity.text(2), block);
    } else if (kind === 'ENDBLK' || kind === 'ENDSEC') {
      block = null;
      polyline = null;
      if (kind === 'ENDSEC') section = '';
    } else if (kind === 'VERTEX') polyline?.vertices.push(entity);
    else if (kind === 'SEQEND') polyline = null;
    else if (section === 'ENTITIES' || (section === 'BLOCKS' && block)) {
      (section === 'ENTITIES' ? drawing.entities : block!.entities).push(entity);
      polyline = kind === 'POLYLINE' ? entity : null;
    }
  };
  for (let i = 0; i + 1 < lines.length; i += 2) {
    const code = parseInt(lines[i], 10);
    const value = lines[i + 1].trim();
    if (code === 0) {
      finish();
      kind = value;
      variable = '';
      tags = [];
      if (value === 'EOF') break;
    } else {
      tags.push([code, value]);
      if (code === 9) variable = value;
      else if (variable === '$INSUNITS' && code === 70) drawing.units = parseInt(value, 10);
    }
  }
  if (kind !== 'EOF') finish();
  return drawing;
}
