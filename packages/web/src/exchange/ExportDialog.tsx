import { writeDxf, writeGlb, writeStl, type WrittenBody } from '@jadebell/core/formats/export';
import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material';
import { useEffect, useState } from 'react';
import { Chip } from '../ledger/Chip.tsx';
import { previewExpression, useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { download } from '../ui/download.ts';
import type { ViewBody } from '../workers/protocol.ts';
import { useExchange } from './useExchange.ts';
import { Choice, plainOptions } from '../kit/Choice.tsx';
import { OneOf } from '../kit/Tick.tsx';
import { Message } from '../kit/Message.tsx';

const kinds = {
  stl: 'STL, one mesh of all bodies in millimetres',
  glb: 'glTF, bodies with colours in metres',
  dxf: 'DXF, the outlines in a plane in millimetres',
} as const;
type Kind = keyof typeof kinds;
const planes = { xy: 2, yz: 0, zx: 1 } as const;

const written = (b: ViewBody): WrittenBody => ({
  name: b.name,
  positions: b.positions,
  triangles: b.triangles,
  colour: b.material.kind === 'conductor' ? [0.75, 0.53, 0.29, 1] : [0.62, 0.77, 0.69, 0.5],
});

/** Writes the model as it is now. */
export function ExportDialog({ onClose }: { onClose(): void }) {
  const document = useProject((s) => s.document)!;
  const bodies = useModel((s) => s.view.bodies);
  const [kind, setKind] = useState<Kind>('stl');
  const [plane, setPlane] = useState<keyof typeof planes>('xy');
  const [offset, setOffset] = useState('0 mm');
  const [at, setAt] = useState<number | null>(0);
  const [fault, setFault] = useState<string | null>(null);
  const stem = document.title.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-');
  useEffect(() => {
    let current = true;
    void previewExpression(offset, 'length').then((p) => current && setAt(p.si));
    return () => {
      current = false;
    };
  }, [offset]);
  const { ask } = useExchange((reply) => {
    if (reply.kind === 'fault') setFault(reply.text);
    if (reply.kind !== 'outlines') return;
    if (!reply.layers.length) return setFault('No body meets this plane. Move the plane.');
    download(`${stem}-${plane}.dxf`, writeDxf(reply.layers), 'image/vnd.dxf');
    onClose();
  });
  const write = (): void => {
    setFault(null);
    if (kind === 'dxf') return ask({ kind: 'outlines', bodies, normal: planes[plane], offset: at! });
    if (kind === 'stl') download(`${stem}.stl`, writeStl(bodies.filter((b) => !b.sheet).map(written)), 'model/stl');
    else download(`${stem}.glb`, writeGlb(bodies.map(written)), 'model/gltf-binary');
    onClose();
  };
  const none = kind === 'stl' ? !bodies.some((b) => !b.sheet) : !bodies.length;
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm">
      <DialogTitle sx={{ fontSize: 17 }}>Export the model</DialogTitle>
      <DialogContent>
        <OneOf label="Format" value={kind} options={(Object.keys(kinds) as Kind[]).map((k) => ({ value: k, label: kinds[k] }))} onChange={setKind} />
        {kind === 'dxf' && (
          <div className="row" style={{ gap: 8, marginTop: 8 }}>
            plane
            <Choice
              look="chip"
              label="Plane"
              value={plane}
              options={plainOptions(Object.keys(planes) as (keyof typeof planes)[])}
              onChange={setPlane}
            />
            at <Chip label="offset of the plane" quantity="length" value={offset} onChange={setOffset} />
          </div>
        )}
        {none && (
          <Message tone="warn" role="note">
            {kind === 'stl' ? 'There is no solid; sheets have no thickness for an STL.' : 'The model has no body.'}
          </Message>
        )}
        {fault && <Message>{fault}</Message>}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button variant="contained" disabled={none || (kind === 'dxf' && at === null)} onClick={write}>
          Write file
        </Button>
      </DialogActions>
    </Dialog>
  );
}
