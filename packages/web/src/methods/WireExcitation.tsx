import { type Port, portKind } from '@jadebell/core/document';
import { useProject } from '../project/store.ts';
import { lightOn, sendOn } from '../project/excitation.ts';
import { Tool } from '../kit/Tool.tsx';

/** What of the wires' ports and sources is excited: ports send one after the other, or a wave lights them while the ports are loads. */
export function WireExcitation({ feeding }: { feeding: Port[] }) {
  const { excite } = useProject((s) => s.document)!.solve;
  const edit = useProject((s) => s.edit);
  const ports = feeding.filter((p) => portKind(p).family === 'wire');
  const wave = feeding.find((p) => portKind(p).role === 'source' && (excite?.includes(p.name) ?? true));
  const lightable = feeding.filter((p) => portKind(p).role === 'source');
  if (!lightable.length && ports.length < 2) return null;
  const sends = (name: string): boolean => !wave && (excite?.includes(name) ?? true);
  return (
    <div className="row" role="group" aria-label="Excited" style={{ gap: 4, flexWrap: 'wrap', padding: '2px 14px 6px' }}>
      <span className="quiet">excite</span>
      {ports.map((p) => (
        <Tool key={p.name} aria-pressed={sends(p.name)} onClick={() => edit('excited ports', (d) => sendOn(d, p.name, !sends(p.name)))}>
          {p.name}
        </Tool>
      ))}
      {lightable.map((p) => (
        <Tool key={p.name} aria-pressed={wave === p} onClick={() => edit('excited wave', (d) => lightOn(d, p.name))}>
          {p.name}
        </Tool>
      ))}
      <span className="quiet">{wave ? 'the ports are loads of the wave' : 'one after the other; fields of each are kept'}</span>
    </div>
  );
}
