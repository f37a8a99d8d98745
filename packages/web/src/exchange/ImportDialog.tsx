import type { Line, Part, Project } from '@jadebell/core/document';
import { library } from '@jadebell/core/materials';
import { Button, Dialog, DialogActions, DialogContent, DialogTitle, LinearProgress } from '@mui/material';
import { useRef, useState } from 'react';
import { freeName } from '../project/edits.ts';
import { useProject } from '../project/store.ts';
import type { ExchangeReply, Found } from '../workers/exchange.protocol.ts';
import { FoundTable, type Taking, units } from './FoundTable.tsx';
import { useExchange } from './useExchange.ts';
import { Choice, plainOptions } from '../kit/Choice.tsx';
import { FilePicker } from '../kit/FilePicker.tsx';
import { Message } from '../kit/Message.tsx';

const endings = '.dxf,.stl,.obj,.3mf,.glb,.gltf,.step,.stp,.iges,.igs,.csv,.txt';

/** A name for a line from one in a file. */
const lineName = (text: string): string => {
  const plain = text
    .replaceAll(/[^A-Za-z0-9_]+/g, '_')
    .replace(/^[^A-Za-z_]+/, '')
    .slice(0, 30);
  return plain || 'part';
};

/** Parts of the project and lines that show them. */
function withParts(project: Project, parts: Part[], choices: readonly Taking[]): Project {
  let next = project;
  parts.forEach((given, i) => {
    const taken = new Set((next.parts ?? []).map((p) => p.name));
    let name = given.name.slice(0, 70) || 'part';
    for (let n = 2; taken.has(name); n++) name = `${given.name.slice(0, 70)} ${n}`;
    const base = { name: freeName(next, 'lines', lineName(given.name)), material: choices[i].material };
    const zero: [string, string, string] = ['0 mm', '0 mm', '0 mm'];
    const line: Line =
      given.kind === 'mesh'
        ? { kind: 'import', ...base, part: name, scale: '1', at: zero, turn: ['0 deg', '0 deg', '0 deg'], simplify: '0 mm' }
        : { kind: 'drawing', ...base, part: name, plane: 'xy', scale: '1', thickness: choices[i].thickness, at: zero };
    next = { ...next, parts: [...(next.parts ?? []), { ...given, name }], lines: [...next.lines, line] };
  });
  return next;
}

/** Takes parts or layers of a file: which, in what unit, of what material. */
export function ImportDialog({ onClose }: { onClose(): void }) {
  const document = useProject((s) => s.document)!;
  const edit = useProject((s) => s.edit);
  const picker = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File | null>(null);
  const [found, setFound] = useState<Found | null>(null);
  const [unit, setUnit] = useState('');
  const [choices, setChoices] = useState<Taking[]>([]);
  const [progress, setProgress] = useState<{ text: string; fraction: number } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const pending = useRef<Taking[]>([]);
  const materials = [...document.materials.map((m) => m.name), ...library.map((m) => m.name)];

  const onReply = (reply: ExchangeReply): void => {
    if (reply.kind === 'progress') return setProgress(reply);
    setProgress(null);
    if (reply.kind === 'fault') return setFault(reply.text);
    if (reply.kind === 'found') {
      setFound(reply.found);
      setUnit(reply.found.unit ?? '');
      setChoices(reply.found.parts.map((p) => ({ taken: p.closed, material: p.kind === 'mesh' ? 'Polyethylene' : 'Copper', thickness: '0 mm' })));
    }
    if (reply.kind === 'taken') {
      edit('import', (d) => withParts(d, reply.parts, pending.current));
      onClose();
    }
  };
  const { ask, cancel } = useExchange(onReply);
  const open = (f: File | undefined): void => {
    if (!f) return;
    cancel();
    setFile(f);
    setFound(null);
    setFault(null);
    setProgress({ text: `Reading ${f.name}`, fraction: 0 });
    ask({ kind: 'read', file: f });
  };
  const chosen = (found?.parts ?? []).filter((_, i) => choices[i]?.taken);
  const set = (i: number, change: Partial<Taking>): void => setChoices((old) => old.map((c, n) => (n === i ? { ...c, ...change } : c)));
  const take = (): void => {
    pending.current = chosen.map((p) => choices[p.index]);
    ask({ kind: 'take', indices: chosen.map((p) => p.index), scale: units[unit], source: file!.name });
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" aria-labelledby="import-title">
      <DialogTitle id="import-title" sx={{ fontSize: 17 }}>
        Import {file?.name ?? 'a drawing or a body'}
      </DialogTitle>
      <DialogContent
        onDragOver={(e) => e.preventDefault()}
        onDrop={(e) => {
          e.preventDefault();
          open(e.dataTransfer.files[0]);
        }}
      >
        <div className="row" style={{ gap: 10 }}>
          <Button variant="outlined" onClick={() => picker.current?.click()}>
            Choose file
          </Button>
          <span className="quiet">DXF, STL, OBJ, 3MF, glTF, STEP, IGES, or a table of points; or drop one here</span>
        </div>
        <FilePicker ref={picker} accept={endings} label="File to import" onFiles={([f]) => open(f)} />
        {progress && (
          <div style={{ margin: '14px 0' }} role="status">
            {progress.text} …
            <LinearProgress variant="determinate" value={100 * progress.fraction} sx={{ mt: 0.5 }} />
            <Button
              onClick={() => {
                cancel();
                setProgress(null);
              }}
            >
              Stop
            </Button>
          </div>
        )}
        {fault && <Message style={{ marginTop: 12 }}>{fault}</Message>}
        {found && (
          <>
            <p style={{ margin: '12px 0 6px' }}>
              <span>
                One unit of the file is a{' '}
                <Choice
                  look="chip"
                  label="Unit of the file"
                  value={unit}
                  options={[{ value: '', label: 'choose …' }, ...plainOptions(Object.keys(units))]}
                  onChange={setUnit}
                />
              </span>{' '}
              <span className="quiet">{found.unit ? 'as the file says' : 'the file does not say; check the sizes below'}</span>
            </p>
            <FoundTable found={found} unit={unit} choices={choices} materials={materials} onChange={set} />
            {found.notes.map((n) => (
              <p key={n} className="quiet">
                {n}
              </p>
            ))}
          </>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button variant="contained" disabled={!unit || !chosen.length || progress !== null} onClick={take}>
          Import {chosen.length || ''}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
