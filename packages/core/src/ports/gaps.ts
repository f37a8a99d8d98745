import {
  acrossGap,
  asElement,
  asPort,
  elementFields,
  elementSentence,
  gapField,
  gapFields,
  gapSentence,
  referenceFields,
  referenceSentence,
} from './lumped.ts';
import { definePort, type PortSurroundings } from './port.ts';

const common = {
  family: 'lumped',
  solvers: ['fdtd'],
  lacking: ({ pair }: PortSurroundings) => !pair,
  fresh: ({ pair }: PortSurroundings) => (pair ? { between: pair } : {}),
} as const;

/** A lumped port across the gap between two bodies: it follows them when their dimensions change. */
export const gapPort = definePort({
  ...common,
  kind: 'gap',
  title: 'across the gap between two bodies',
  stem: 'port1',
  role: 'port',
  fields: { ...gapFields, ...referenceFields, gap: gapField },
  sentence: `Lumped port {name} ${gapSentence} ${referenceSentence} · {gap}`,
  resolve: (entry, v, placing) => asPort(entry, v, acrossGap(entry.between, placing), placing),
});

/** A lumped element without a port, across the gap between two bodies. */
export const gapElement = definePort({
  ...common,
  kind: 'element-gap',
  title: 'lumped R, L, C across a gap, no port',
  stem: 'load1',
  role: 'load',
  fields: { ...gapFields, ...elementFields },
  sentence: `Lumped element {name} ${gapSentence} ${elementSentence}`,
  resolve: (entry, v, placing) => asElement(entry, v, acrossGap(entry.between, placing), placing),
});
