import type { Body } from '@jadebell/core/geometry';

type Faces = Body['faces'];

/** Faces of a body on its way to the page: hundreds of bodies have thousands of them, and few are ever asked for. */
export interface PackedFaces {
  faceNames: readonly string[];
  /** Lines that they came from; null where it is the body's own for all. */
  faceLines: readonly string[] | null;
  /** Area, centre and normal of each, seven numbers; no numbers in place of a normal that it has not. */
  faceNumbers: Float64Array;
}

/** Numbers of a face. */
const width = 7;

/** Lists of names, each once, so that bodies of one form share theirs. */
const lists = new Map<string, readonly string[]>();
const mostLists = 2000;
function shared(names: string[]): readonly string[] {
  const key = names.join('\n');
  const known = lists.get(key);
  if (known) return known;
  if (lists.size >= mostLists) lists.clear();
  lists.set(key, names);
  return names;
}

/** Faces of a body that the line `line` made. */
export function packFaces(line: string, faces: Faces): PackedFaces {
  const faceNumbers = new Float64Array(width * faces.length).fill(NaN);
  faces.forEach(({ area, centre, normal }, f) => {
    faceNumbers[width * f] = area;
    faceNumbers.set(centre, width * f + 1);
    if (normal) faceNumbers.set(normal, width * f + 4);
  });
  const own = faces.every((f) => f.line === line);
  return { faceNames: shared(faces.map((f) => f.name)), faceLines: own ? null : faces.map((f) => f.line), faceNumbers };
}

/** The same again. */
export const unpackFaces = (line: string, { faceNames, faceLines, faceNumbers: n }: PackedFaces): Faces =>
  faceNames.map((name, f) => {
    const at = width * f;
    return {
      line: faceLines ? faceLines[f] : line,
      name,
      area: n[at],
      centre: [n[at + 1], n[at + 2], n[at + 3]],
      normal: Number.isNaN(n[at + 4]) ? null : [n[at + 4], n[at + 5], n[at + 6]],
    };
  });

/** A body whose faces are unpacked when they are asked for. */
export function withFaces<B extends PackedFaces & { line: string }>(body: B): B & { faces: Faces } {
  let faces: Faces | null = null;
  return Object.defineProperty(body, 'faces', { enumerable: true, configurable: true, get: () => (faces ??= unpackFaces(body.line, body)) }) as B & {
    faces: Faces;
  };
}
