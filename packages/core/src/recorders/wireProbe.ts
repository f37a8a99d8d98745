import { number, ref } from '../entries/index.ts';
import { defineRecorder } from './recorder.ts';

/** Current in a wire over the band; its arrays, `probe:NAME`, are those of ports and loads in wires as well. */
export const wireProbe = defineRecorder<{ wire: string; share: number }, object>()({
  kind: 'wire-probe',
  title: 'current in a wire over the band',
  stem: 'probe',
  solvers: ['moment'],
  over: 'band',
  fields: {
    wire: ref('wire', 'metal', 'Name of the body that is a wire'),
    at: number('place along the wire', '0.5', 'Place along the wire: 0 its start, 1 its end'),
  },
  sentence: 'Current {name} · in the wire {wire} at {at} of its length, over the band',
  fresh: ({ wires }) => ({ wire: wires[0] ?? '' }),
  resolve: ({ wire }, { at }) => ({ wire, share: at }),
});
