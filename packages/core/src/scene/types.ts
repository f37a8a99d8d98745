import type { Boundary, Point3, Problem, SolveSettings } from '../document/index.ts';
import type { Body, Model } from '../geometry/index.ts';
import type { SceneGuide, ScenePort, SceneWave, WireScene } from '../ports/index.ts';
import type { PlacedRecorder } from '../recorders/index.ts';
import type { Mirrors } from '../yee/index.ts';
import type { SceneSection } from './sections.ts';

/** Everything a solver needs, in SI, free of expressions. */
export interface Scene {
  bodies: Body[];
  /** Lumped ports. */
  ports: ScenePort[];
  guides: SceneGuide[];
  /** Wires and what hangs on them, where the solver takes those; bodies, lumped and guided ports are empty then. */
  wires?: WireScene;
  /** A plane wave that lights the structure; lumped ports are loads then. */
  wave: SceneWave | null;
  /** Names of the ports to excite, one after the other; null for all. */
  excite: string[] | null;
  /** Waves whose fields are recorded together: port, mode from 1, amplitude, phase in radians; absent: those of the first excitation. */
  combine?: { port: string; mode: number; amplitude: number; phase: number }[];
  /** Fields of each excitation are kept by themselves. */
  keepEach?: boolean;
  /** xMin, xMax, yMin, yMax, zMin, zMax. */
  boundaries: Boundary[];
  /** Planes of symmetry: the region begins at them, and what lies behind is an image. */
  mirrors?: Mirrors;
  /** Inner corners of the computed region, without absorbing layers. */
  min: Point3;
  max: Point3;
  band: { from: number; to: number; points: number };
  recorders: PlacedRecorder[];
  /** Hertz. */
  recordAt: number[];
  accuracy: SolveSettings['accuracy'];
  details: {
    cellsPerWavelength?: number;
    smallestCell?: number;
    pmlLayers?: number;
    stopAt?: number;
    change?: number;
    maxSteps?: number;
    segmentsPerWavelength?: number;
    eachFrequency?: boolean;
  };
  /** Stretches of an axis with a largest cell of their own, metres. */
  limits?: { axis: 0 | 1 | 2; from: number; to: number; size: number }[];
  /** Stretches of space with a largest cell of their own, metres. */
  boxes?: { min: number[]; max: number[]; cell: number }[];
  /** Makes what follows from the metal's features and layers finer by this factor too; absent: 1. */
  finer?: number;
}

export interface SceneResult {
  model: Model;
  ports: ScenePort[];
  guides: SceneGuide[];
  wave: SceneWave | null;
  sections: SceneSection[];
  recorders: PlacedRecorder[];
  /** Wires and what hangs on them, as far as they are good, where the solver takes those. */
  wires?: WireScene;
  /** Null if an error stands in the way; those of sections do not. */
  scene: Scene | null;
  problems: Problem[];
}
