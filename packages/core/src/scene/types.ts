import type { Boundary, Point3, Problem, SolveSettings } from '../document/index.ts';
import type { Body, Model } from '../geometry/index.ts';
import type { SceneGuide, ScenePort, SceneSource, WireScene } from '../ports/index.ts';
import type { PlacedRecorder } from '../recorders/index.ts';
import type { Mirrors } from '../yee/index.ts';
import type { SceneSection } from './sections.ts';

/** What every solver needs, in SI, free of expressions. */
interface CommonScene {
  /** What excites the structure from without; ports are loads then. */
  source: SceneSource | null;
  /** Names of the ports to excite, one after the other; null for all. */
  excite: string[] | null;
  /** Inner corners of the computed region, without absorbing layers; of what is shown where the solver computes no region. */
  min: Point3;
  max: Point3;
  band: { from: number; to: number; points: number };
  recorders: PlacedRecorder[];
  /** Hertz. */
  recordAt: number[];
  accuracy: SolveSettings['accuracy'];
}

/** A problem on a grid: bodies in a region, for the time-domain solver. */
export interface GridScene extends CommonScene {
  solver: 'fdtd';
  bodies: Body[];
  /** Lumped ports. */
  ports: ScenePort[];
  guides: SceneGuide[];
  /** Waves whose fields are recorded together: port, mode from 1, amplitude, phase in radians; absent: those of the first excitation. */
  combine?: { port: string; mode: number; amplitude: number; phase: number }[];
  /** Fields of each excitation are kept by themselves. */
  keepEach?: boolean;
  /** xMin, xMax, yMin, yMax, zMin, zMax. */
  boundaries: Boundary[];
  /** Planes of symmetry: the region begins at them, and what lies behind is an image. */
  mirrors?: Mirrors;
  details: {
    cellsPerWavelength?: number;
    smallestCell?: number;
    pmlLayers?: number;
    stopAt?: number;
    change?: number;
    maxSteps?: number;
    finer?: number;
  };
  /** Stretches of space with a largest cell of their own, metres. */
  boxes?: { min: number[]; max: number[]; cell: number }[];
}

/** A problem of wires, for the solver of their integral equation. */
export interface WiresScene extends CommonScene {
  solver: 'moment';
  wires: WireScene;
  details: { change?: number; segmentsPerWavelength?: number; eachFrequency?: boolean; finer?: number };
}

/** What a solver is given: the scene of its own kind. */
export type Scene = GridScene | WiresScene;
/** The scene that a solver takes, by its name. */
export type SceneOf<N extends Scene['solver']> = Extract<Scene, { solver: N }>;

/**
 * A scene as one solver takes it.
 * @throws Error where there is none, or one of another solver.
 */
export function sceneFor<N extends Scene['solver']>(solver: N, scene: Scene | null): SceneOf<N> {
  if (scene?.solver !== solver) throw new Error(`This is no scene for the solver ${solver}.`);
  return scene as SceneOf<N>;
}

export interface SceneResult {
  model: Model;
  ports: ScenePort[];
  guides: SceneGuide[];
  source: SceneSource | null;
  sections: SceneSection[];
  recorders: PlacedRecorder[];
  /** Wires and what hangs on them, as far as they are good, where the solver takes those. */
  wires?: WireScene;
  /** Null if an error stands in the way; those of sections do not. */
  scene: Scene | null;
  problems: Problem[];
}
