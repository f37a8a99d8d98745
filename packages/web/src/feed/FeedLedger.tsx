import {
  type Port,
  portChips,
  portSentence,
  type Project,
  recorderChips,
  recorderSentence,
  sectionChips,
  sectionSentence,
} from '@jadebell/core/document';
import { faceName } from '@jadebell/core/naming';
import Add from '@mui/icons-material/Add';
import { Button, Menu, MenuItem } from '@mui/material';
import { type ReactNode, useState } from 'react';
import { closeSection, openSection, useSection } from '../section/sectionState.ts';
import { BoundarySection } from './BoundarySection.tsx';
import { excitationRenamed, removePort } from './excitation.ts';
import { Excitation } from './Excitation.tsx';
import { newRecorder, withFrequency } from './newRecorder.ts';
import { newSection } from './newSection.ts';
import { Chip } from '../ledger/Chip.tsx';
import { Entry } from '../ledger/Entry.tsx';
import { glyphOf } from '../ledger/glyphs.tsx';
import { Sentence } from '../ledger/Sentence.tsx';
import { useRename } from '../ledger/useRename.ts';
import { freeName, removeEntry, replaceEntry } from '../project/edits.ts';
import { problemsAt, useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { useStage } from '../stageview/stageState.ts';

/** Bodies of metal, as the model has them now. */
const conductors = (): string[] =>
  useModel
    .getState()
    .view.bodies.filter((b) => b.material.kind === 'conductor')
    .map((b) => b.name);

/** The two conductors with the narrowest gap between them that no port stands in yet. */
function nextPair(d: Project): [string, string] {
  const metal = useModel.getState().view.bodies.filter((b) => b.material.kind === 'conductor');
  const fed = new Set(d.ports.flatMap((p) => ('between' in p ? [[...p.between].sort().join(' ')] : [])));
  let best: [string, string] = [metal[0].name, metal[1].name];
  let narrowest = Infinity;
  for (const [i, a] of metal.entries())
    for (const b of metal.slice(i + 1)) {
      const gap = Math.max(...[0, 1, 2].map((x) => Math.max(b.min[x] - a.max[x], a.min[x] - b.max[x])));
      if (!(gap > 0) || gap >= narrowest || fed.has([a.name, b.name].sort().join(' '))) continue;
      narrowest = gap;
      // The path runs towards larger coordinates.
      best = [0, 1, 2].some((x) => b.min[x] - a.max[x] === gap) ? [a.name, b.name] : [b.name, a.name];
    }
  return best;
}

const newLoad = { form: 'series', r: '50 ohm', l: '0 nH', c: '0 pF' } as const;

const newPort: Record<string, { title: string; make(d: Project): Port; possible(): boolean }> = {
  gap: {
    title: 'across the gap between two bodies',
    possible: () => conductors().length > 1,
    make: (d) => ({ kind: 'gap', name: freeName(d, 'ports', 'port1'), between: nextPair(d), resistance: '50 ohm' }),
  },
  path: {
    title: 'along a path between two points',
    possible: () => true,
    make: (d) => ({
      kind: 'path',
      name: freeName(d, 'ports', 'port1'),
      from: ['-1 mm', '0 mm', '0 mm'],
      to: ['1 mm', '0 mm', '0 mm'],
      width: '0 mm',
      across: 'y',
      resistance: '50 ohm',
    }),
  },
  'element-gap': {
    title: 'lumped R, L, C across a gap, no port',
    possible: () => conductors().length > 1,
    make: (d) => ({ kind: 'element-gap', name: freeName(d, 'ports', 'load1'), between: nextPair(d), ...newLoad }),
  },
  'element-path': {
    title: 'lumped R, L, C along a path, no port',
    possible: () => true,
    make: (d) => ({
      kind: 'element-path',
      name: freeName(d, 'ports', 'load1'),
      from: ['-1 mm', '0 mm', '0 mm'],
      to: ['1 mm', '0 mm', '0 mm'],
      width: '0 mm',
      across: 'y',
      ...newLoad,
    }),
  },
  'guide-face': {
    title: 'guided, on a face of a body',
    possible: () => useModel.getState().view.bodies.some((b) => !b.sheet),
    make: (d) => ({ kind: 'guide-face', name: freeName(d, 'ports', 'port1'), face: pickedFace(), modes: '1', shift: '0 mm' }),
  },
  'guide-plane': {
    title: 'guided, on a rectangle of a plane',
    possible: () => true,
    make: (d) => ({
      kind: 'guide-plane',
      name: freeName(d, 'ports', 'port1'),
      normal: 'x',
      into: 'up',
      at: '0 mm',
      from: ['-5 mm', '0 mm'],
      to: ['5 mm', '5 mm'],
      modes: '1',
      shift: '0 mm',
    }),
  },
  'plane-wave': {
    title: 'plane wave from a direction',
    possible: () => !useProject.getState().document?.ports.some((p) => p.kind === 'plane-wave'),
    make: (d) => ({ kind: 'plane-wave', name: freeName(d, 'ports', 'wave1'), theta: '0 deg', phi: '0 deg', tilt: '0 deg', minor: '0' }),
  },
};

/** The face that is marked in the stage view, if one is. */
function pickedFace(): string {
  const { hit } = useStage.getState();
  const body = hit?.kind === 'face' ? useModel.getState().view.bodies.find((b) => b.name === hit.body) : undefined;
  return body && !body.sheet ? faceName(body, hit!.face!) : '';
}

/** Gives an entry of a part another name, also where it is named among those to excite. */
const renamed =
  (part: 'ports' | 'recorders' | 'sections') =>
  (d: Project, from: string, to: string): Project => {
    const next = replaceEntry(d, part, from, { ...d[part].find((e) => e.name === from)!, name: to });
    return part === 'ports' ? excitationRenamed(next, from, to) : next;
  };

/** Adds a port of a kind. */
export function addPort(kind: string): void {
  useProject.getState().edit('add port', (d) => (newPort[kind].possible() ? { ...d, ports: [...d.ports, newPort[kind].make(d)] } : d));
}

function AddMenu({ label, items }: { label: string; items: { title: string; disabled?: boolean; act(): void }[] }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <Button startIcon={<Add />} aria-haspopup="menu" onClick={(e) => setAnchor(e.currentTarget)}>
        {label}
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {items.map((item) => (
          <MenuItem
            key={item.title}
            disabled={item.disabled}
            onClick={() => {
              setAnchor(null);
              item.act();
            }}
          >
            {item.title}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}

/** Ports, boundaries and recorders. */
export function FeedLedger() {
  const document = useProject((s) => s.document)!;
  const edit = useProject((s) => s.edit);
  const problems = useModel((s) => s.view.problems);
  const bodies = useModel((s) => s.view.bodies);
  const feeding = document.ports.filter((p) => !p.kind.startsWith('element'));
  const lit = document.ports.some((p) => p.kind === 'plane-wave');
  const metal = bodies.filter((b) => b.material.kind === 'conductor').map((b) => b.name);
  const filled = [...new Set(bodies.map((b) => b.line))];
  const renamers = {
    ports: useRename('ports', renamed('ports')),
    recorders: useRename('recorders', renamed('recorders')),
    sections: useRename('sections', renamed('sections')),
  };
  const open = useSection((s) => s.open);

  const entries = <P extends 'ports' | 'recorders' | 'sections'>(
    part: P,
    sentence: (e: Project[P][number]) => ReturnType<typeof portSentence>,
    chips: (e: Project[P][number]) => ReturnType<typeof portChips>,
  ): ReactNode =>
    (document[part] as Project[P][number][]).map((entry, i) => {
      const own = problemsAt(problems, part, entry.name);
      return (
        <Entry
          key={entry.name}
          name={entry.name}
          number={i + 1}
          glyph={glyphOf('kind' in entry ? entry.kind : 'section')}
          problems={renamers[part].withFault(entry.name, own)}
          onRemove={() => edit(`remove ${part}`, (d) => (part === 'ports' ? removePort(d, entry.name) : removeEntry(d, part, entry.name)))}
        >
          <Sentence
            entry={entry}
            parts={sentence(entry)}
            chips={chips(entry)}
            problems={own}
            bodies={part === 'recorders' ? filled : metal}
            onChange={(next, what) => edit(what, (d) => replaceEntry(d, part, entry.name, next))}
            onRename={(name) => renamers[part].rename(entry.name, name)}
          />
          {(part === 'sections' || ('kind' in entry && entry.kind.startsWith('guide'))) && (
            <button
              type="button"
              className="tool"
              aria-pressed={open === entry.name}
              onClick={() => (open === entry.name ? closeSection() : openSection(entry.name))}
            >
              Modes
            </button>
          )}
        </Entry>
      );
    });

  return (
    <div className="ledger" aria-label="Ledger">
      <section aria-label="Ports">
        <header>
          <h2>Ports and waves</h2>
          <span className="grow" />
          <AddMenu
            label="Add port or wave"
            items={Object.entries(newPort).map(([kind, p]) => ({ title: p.title, disabled: !p.possible(), act: () => addPort(kind) }))}
          />
        </header>
        {!document.ports.length && (
          <p className="quiet pad">
            A port feeds the structure and reads what comes back.{' '}
            {metal.length > 1 ? 'Add one.' : 'Build two conductors with a gap under Shape first, or place one along a path.'}
          </p>
        )}
        {entries('ports', portSentence, portChips)}
        {lit && document.ports.some((p) => p.kind === 'gap' || p.kind === 'path') && (
          <p className="quiet pad">Under a plane wave the lumped ports are loads.</p>
        )}
        {!lit && feeding.length > 0 && <Excitation feeding={feeding} />}
      </section>
      <section aria-label="Sections">
        <header>
          <h2>Sections</h2>
          <span className="grow" />
          <Button
            startIcon={<Add />}
            onClick={() =>
              edit('add section', (d) => {
                const made = newSection(d);
                openSection(made.name);
                return { ...d, sections: [...d.sections, made] };
              })
            }
          >
            Add section
          </Button>
        </header>
        {entries('sections', sectionSentence, sectionChips)}
        {!document.sections.length && (
          <p className="quiet pad">A cross-section whose modes are solved by themselves: index, impedance, loss, fields.</p>
        )}
      </section>
      <BoundarySection />
      <section aria-label="Recorders">
        <header>
          <h2>Recorders</h2>
          <span className="grow" />
          <AddMenu
            label="Add recorder"
            items={Object.entries(newRecorder).map(([kind, r]) => ({
              title: r.title,
              disabled: kind === 'far-field' && document.recorders.some((e) => e.kind === 'far-field'),
              act: () => edit('add recorder', (d) => withFrequency({ ...d, recorders: [...d.recorders, r.make(d)] })),
            }))}
          />
        </header>
        {entries('recorders', recorderSentence, recorderChips)}
        <dl className="settings">
          <dt>at frequencies</dt>
          <dd>
            {document.recordAt.map((f, i) => (
              <span key={i} className="row" style={{ gap: 0 }}>
                <Chip
                  label={`recorded frequency ${i + 1}`}
                  quantity="frequency"
                  value={f}
                  problems={problemsAt(problems, 'recorders', undefined, `recordAt.${i}`)}
                  onChange={(v) => edit('recorded frequency', (d) => ({ ...d, recordAt: d.recordAt.map((o, n) => (n === i ? v : o)) }))}
                />
                <button
                  type="button"
                  className="tool"
                  style={{ border: 0, padding: '0 4px' }}
                  aria-label={`Remove frequency ${f}`}
                  onClick={() => edit('remove frequency', (d) => ({ ...d, recordAt: d.recordAt.filter((_, n) => n !== i) }))}
                >
                  ×
                </button>
              </span>
            ))}
            <button type="button" className="tool" onClick={() => edit('add frequency', (d) => ({ ...d, recordAt: [...d.recordAt, d.solve.from] }))}>
              Add frequency
            </button>
          </dd>
        </dl>
        {problems
          .filter((p) => p.place.part === 'recorders' && !document.recorders.some((r) => r.name === p.place.name))
          .map((p) => (
            <div key={p.code + p.place.chip} role="alert" className="fault" style={{ padding: '0 14px' }}>
              {p.message} {p.fix}
            </div>
          ))}
      </section>
    </div>
  );
}
