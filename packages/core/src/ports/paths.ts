import {
  alongPath,
  asElement,
  asPort,
  elementFields,
  elementSentence,
  gapField,
  pathFields,
  pathSentence,
  referenceFields,
  referenceSentence,
} from './lumped.ts';
import { definePort } from './port.ts';

/** A lumped port along a straight path between two points, of a given width. */
export const pathPort = definePort({
  kind: 'path',
  title: 'along a path between two points',
  stem: 'port1',
  family: 'lumped',
  role: 'port',
  solvers: ['fdtd'],
  fields: { ...pathFields, ...referenceFields, gap: gapField },
  sentence: `Lumped port {name} ${pathSentence} ${referenceSentence} · {gap}`,
  resolve: (entry, v, placing) => asPort(entry, v, alongPath(entry.across, v, placing), placing),
});

/** A lumped element without a port, along a straight path. */
export const pathElement = definePort({
  kind: 'element-path',
  title: 'lumped R, L, C along a path, no port',
  stem: 'load1',
  family: 'lumped',
  role: 'load',
  solvers: ['fdtd'],
  fields: { ...pathFields, ...elementFields },
  sentence: `Lumped element {name} ${pathSentence} ${elementSentence}`,
  resolve: (entry, v, placing) => asElement(entry, v, alongPath(entry.across, v, placing), placing),
});
