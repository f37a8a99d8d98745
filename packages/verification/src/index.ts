import { absorber } from './absorber.ts';
import { cavity } from './cavity.ts';
import type { Case } from './case.ts';
import { coax } from './coax.ts';
import { curved } from './curved.ts';
import { halfWave, lossy, patternIntegral, short } from './dipoles.ts';
import { element, elements } from './elements.ts';
import { nearCutoff } from './nearCutoff.ts';
import { flatSpiral } from './flatSpiral.ts';
import { openEnded } from './openGuide.ts';
import { filledGuide, guideModes, slabModes } from './sections.ts';
import { conductingSphere, dielectricSphere } from './spheres.ts';
import { lossyGuide, straightGuide } from './straightGuide.ts';
import { symmetry } from './symmetry.ts';
import { tiltedBox, tiltedSheets } from './tiltedSheets.ts';
import { turnedLine } from './turnedLine.ts';
import { turnedSheets } from './turnedSheets.ts';
import { ringScreen, ringScreens } from './ringScreen.ts';
import { waveLeak } from './waveLeak.ts';
import { wireArray, wireDipoles, wireMutual, wireReciprocity } from './wires.ts';
import { wireEarth, wirePickUp } from './wiresOverGround.ts';
import { wallLoss, wallLosses } from './wallLoss.ts';

import { mediaSlabs } from './mediaSlabs.ts';
import { portEnds } from './portEnds.ts';
import { portGaps } from './portGaps.ts';
import { portSpread } from './portSpread.ts';
import { bodyEnergy } from './energy.ts';
import { irisFilter } from './irisFilter.ts';
import { microstripPorts, mixedGuide } from './mixedGuides.ts';
import { copperLoss, microstripModes, striplineModes } from './modes/lines.ts';
import { startersAlike } from './startersAlike.ts';
import { roundGuides } from './modes/roundGuides.ts';
import { bentSlab, leakySlab, lossyFilling, rodModes, surfaceWave, tensorSlab } from './modes/optical.ts';

export * from './case.ts';
export { inducedEmf } from './dipoles.ts';

/** Every verification case. */
export const cases: readonly Case[] = [
  absorber,
  cavity,
  wallLoss,
  wallLosses,
  halfWave,
  short,
  lossy,
  patternIntegral,
  guideModes,
  slabModes,
  filledGuide,
  straightGuide,
  lossyGuide,
  nearCutoff,
  openEnded,
  curved,
  coax,
  element,
  elements,
  waveLeak,
  symmetry,
  conductingSphere,
  dielectricSphere,
  microstripModes,
  striplineModes,
  copperLoss,
  rodModes,
  leakySlab,
  bentSlab,
  surfaceWave,
  tensorSlab,
  lossyFilling,
  mixedGuide,
  microstripPorts,
  irisFilter,
  mediaSlabs,
  portEnds,
  portGaps,
  portSpread,
  turnedSheets,
  ringScreen,
  ringScreens,
  roundGuides,
  startersAlike,
  turnedLine,
  flatSpiral,
  tiltedBox,
  tiltedSheets,
  bodyEnergy,
  wireDipoles,
  wireMutual,
  wireArray,
  wireReciprocity,
  wirePickUp,
  wireEarth,
];
