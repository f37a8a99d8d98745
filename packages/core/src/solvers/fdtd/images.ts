import type { Grid } from '../../grid/index.ts';
import type { FaceSamples, Pattern } from '../../radiation/index.ts';
import { imageSign, type Mirror, type Mirrors, type GridScene } from '../../scene/index.ts';
import type { Axis } from '../../numerics/axis.ts';
import { sameNumber } from '../../numerics/tolerance.ts';

/** A wall at which the region ends and behind which its image lies. */
export interface ImageWall extends Mirror {
  axis: Axis;
  /** 0: at the low end of the axis. */
  side: 0 | 1;
  /** The image is a part of the structure (symmetry); otherwise there is nothing behind the wall, as behind a boundless ground. */
  real: boolean;
}

/** Electric and magnetic walls of a region. */
export function imageWalls(scene: Pick<GridScene, 'boundaries' | 'mirrors'>, grid: Grid): ImageWall[] {
  return scene.boundaries.flatMap((wall, s): ImageWall[] => {
    if (wall !== 'electric' && wall !== 'magnetic') return [];
    const axis = (s >> 1) as Axis;
    const x = grid.lines[axis];
    const side = (s & 1) as 0 | 1;
    return [{ axis, side, wall, at: x[side ? x.length - 1 - grid.outerCells[s] : grid.outerCells[s]], real: !side && !!scene.mirrors?.[axis] }];
  });
}

/** Parts that the structure consists of, of which the region is one. */
export const partsOf = (mirrors: Mirrors | undefined): number => 2 ** (mirrors?.filter((m) => m).length ?? 0);

/** Faces with all their images behind the walls: together they radiate as the structure does. */
export function withImages(faces: readonly FaceSamples[], walls: readonly ImageWall[]): FaceSamples[] {
  let all = [...faces];
  for (const { axis, wall, at } of walls) {
    const turn = (x: number): number => 2 * at - x;
    all = all.concat(
      all.map((f): FaceSamples => {
        const sign = imageSign(wall, axis, f.component, f.magnetic);
        const across = f.normal === axis;
        return {
          ...f,
          outward: across ? (f.outward === 1 ? -1 : 1) : f.outward,
          at: across ? turn(f.at) : f.at,
          coordinates: f.coordinates.map((c, i) => (f.axes[i] === axis ? c.map(turn) : c)) as FaceSamples['coordinates'],
          re: sign === 1 ? f.re : f.re.map((x) => -x),
          im: sign === 1 ? f.im : f.im.map((x) => -x),
        };
      }),
    );
  }
  return all;
}

/**
 * The part of a sample's dual cell that lies in the region, where it ends in walls with a cell behind: 0 behind them, a half on
 * them, else 1. Fields 0..5: Ex, Ey, Ez, Hx, Hy, Hz.
 */
export function insideShare(grid: Grid, boundaries: GridScene['boundaries']): (field: number, at: ArrayLike<number>) => number {
  const behind = boundaries.map((b, s) => (b === 'open' ? 0 : grid.outerCells[s]));
  if (!behind.some((n) => n)) return () => 1;
  return (field, at) => {
    let share = 1;
    for (let a = 0; a < 3; a++) {
      const between = field < 3 ? field === a : field - 3 !== a;
      const last = grid.lines[a].length - 1 - behind[2 * a + 1];
      if (at[a] < behind[2 * a] || at[a] > last || (between && at[a] === last)) return 0;
      if (!between && ((behind[2 * a] && at[a] === behind[2 * a]) || (behind[2 * a + 1] && at[a] === last))) share /= 2;
    }
    return share;
  };
}

/** A pattern without what lies behind the given walls. */
export function beforeWalls(p: Pattern, walls: readonly ImageWall[]): Pattern {
  if (!walls.length) return p;
  const values = p.values.slice();
  for (let t = 0; t < p.nTheta; t++)
    for (let f = 0; f < p.nPhi; f++) {
      const [theta, phi] = [(t * Math.PI) / (p.nTheta - 1), (f * 2 * Math.PI) / p.nPhi];
      const towards = [Math.sin(theta) * Math.cos(phi), Math.sin(theta) * Math.sin(phi), Math.cos(theta)];
      const behind = walls.some(({ axis, side }) => towards[axis] * (side ? -1 : 1) < -sameNumber);
      if (behind) values.fill(0, (t * p.nPhi + f) * 4, (t * p.nPhi + f + 1) * 4);
    }
  return { ...p, values };
}
