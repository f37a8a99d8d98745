import { portKind, shapes } from '@jadebell/core/document';
import type { NavigateFunction } from 'react-router';
import { addablePorts, addPort } from '../feed/newPort.ts';
import { addableRecorders, withRecorder } from '../feed/newRecorder.ts';
import { useProject } from '../project/store.ts';
import { addLine } from '../project/addLine.ts';
import { startRun } from '../solve/startRun.ts';
import { download } from '../ui/download.ts';
import { showDialog } from '../ui/dialogs.ts';
import { stages } from '../ui/stages.ts';

export interface Command {
  title: string;
  keys?: string;
  run(): void;
}

/** Ports, loads, waves and recorders that can be added to the open project as it is. */
function feedCommands(to: (run: () => void) => () => void): Command[] {
  const { document, edit } = useProject.getState();
  if (!document) return [];
  const ports = addablePorts(document).filter((p) => p.possible);
  return [
    ...ports.map(({ kind, title }) => ({
      title: `Add ${portKind({ kind }).role === 'port' ? 'port ' : ''}${title}`,
      run: to(() => addPort(kind)),
    })),
    ...addableRecorders(document).map((kind) => ({
      title: `Add recorder: ${kind.title}`,
      run: to(() => edit('add recorder', (d) => withRecorder(d, kind))),
    })),
  ];
}

/** Everything the palette offers for the open project. */
export function commands(id: string, navigate: NavigateFunction, extra: Command[]): Command[] {
  const go = (path: string) => (): void => void navigate(path);
  return [
    ...stages.map((s, i) => ({ title: `Go to ${s.title}`, keys: String(i + 1), run: go(`/project/${id}/${s.path}`) })),
    ...shapes.map((s) => ({
      title: `Add ${s.title.toLowerCase()}: ${s.about.toLowerCase()}`,
      run: () => {
        addLine(s.kind);
        void navigate(`/project/${id}/shape`);
      },
    })),
    ...feedCommands((run) => () => {
      run();
      void navigate(`/project/${id}/feed`);
    }),
    {
      title: 'Run',
      keys: 'Ctrl Enter',
      run: () => {
        void startRun(id);
        void navigate(`/project/${id}/solve`);
      },
    },
    { title: 'Calculator: lines, guides, skin depth', run: () => showDialog('calculator') },
    { title: 'Materials: the library', run: () => showDialog('materials') },
    { title: 'Import a drawing or a body: DXF, STL, OBJ, 3MF, glTF, STEP, points', run: () => showDialog('import') },
    { title: 'Export the model: STL, glTF, DXF', run: () => showDialog('export') },
    { title: 'Undo', keys: 'Ctrl Z', run: () => useProject.getState().undo() },
    { title: 'Redo', keys: 'Ctrl Shift Z', run: () => useProject.getState().redo() },
    { title: 'Export project as JSON', run: exportProject },
    { title: 'Back to the Shelf', run: go('/') },
    ...extra,
  ];
}

/** Writes the open project as one file. */
export function exportProject(): void {
  const { document } = useProject.getState();
  if (document)
    download(`${document.title.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-')}.json`, `${JSON.stringify(document, null, 2)}\n`, 'application/json');
}
