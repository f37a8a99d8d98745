import { library } from '@jadebell/core/materials';
import { Button, Dialog, DialogActions, DialogContent, DialogTitle, LinearProgress } from '@mui/material';
import { zodResolver } from '@hookform/resolvers/zod';
import { useRef, useState } from 'react';
import { type Control, Controller, type Resolver, useForm } from 'react-hook-form';
import { useProject } from '../project/store.ts';
import type { ExchangeReply, Found } from '../workers/exchange.protocol.ts';
import { FoundTable } from './FoundTable.tsx';
import { offered, type Taking, takingSchema, type TakingValues, units, withParts } from './taking.ts';
import { useExchange } from './useExchange.ts';
import { Choice, plainOptions } from '../kit/Choice.tsx';
import { FilePicker } from '../kit/FilePicker.tsx';
import { Message } from '../kit/Message.tsx';

const endings = '.dxf,.stl,.obj,.3mf,.glb,.gltf,.step,.stp,.iges,.igs,.csv,.txt';

/** Takes parts or layers of a file: which, in what unit, of what material. */
export function ImportDialog({ onClose }: { onClose(): void }) {
  const document = useProject((s) => s.document)!;
  const edit = useProject((s) => s.edit);
  const picker = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File | null>(null);
  const [found, setFound] = useState<Found | null>(null);
  const { control, reset, handleSubmit, watch, formState } = useForm<TakingValues>({
    defaultValues: { unit: '', parts: [] },
    resolver: zodResolver(takingSchema) as Resolver<TakingValues>,
    mode: 'onChange',
  });
  const [unit, takings] = watch(['unit', 'parts']);
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
      reset(offered(reply.found));
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
  const count = takings.filter((t) => t.taken).length;
  const take = handleSubmit(({ unit, parts }) => {
    const indices = found!.parts.flatMap((p, i) => (parts[i].taken ? [p.index] : []));
    pending.current = parts.filter((p) => p.taken);
    if (unit) ask({ kind: 'take', indices, scale: units[unit], source: file!.name });
  });
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
          <Progress
            {...progress}
            onStop={() => {
              cancel();
              setProgress(null);
            }}
          />
        )}
        {fault && <Message style={{ marginTop: 12 }}>{fault}</Message>}
        {found && (
          <>
            <p style={{ margin: '12px 0 6px' }}>
              <UnitOfFile control={control} />{' '}
              <span className="quiet">{found.unit ? 'as the file says' : 'the file does not say; check the sizes below'}</span>
            </p>
            <FoundTable {...{ found, unit, control, materials }} />
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
        <Button variant="contained" disabled={!found || !formState.isValid || progress !== null} onClick={() => void take()}>
          Import {count || ''}
        </Button>
      </DialogActions>
    </Dialog>
  );
}

/** What is being done with the file, how far it is, and a way out. */
function Progress({ text, fraction, onStop }: { text: string; fraction: number; onStop(): void }) {
  return (
    <div style={{ margin: '14px 0' }} role="status">
      {text} …
      <LinearProgress variant="determinate" value={100 * fraction} sx={{ mt: 0.5 }} />
      <Button onClick={onStop}>Stop</Button>
    </div>
  );
}

function UnitOfFile({ control }: { control: Control<TakingValues> }) {
  return (
    <span>
      One unit of the file is a{' '}
      <Controller
        control={control}
        name="unit"
        render={({ field: { value, onChange } }) => (
          <Choice
            look="chip"
            label="Unit of the file"
            value={value}
            options={[{ value: '' as const, label: 'choose …' }, ...plainOptions(Object.keys(units) as (keyof typeof units)[])]}
            onChange={onChange}
          />
        )}
      />
    </span>
  );
}
