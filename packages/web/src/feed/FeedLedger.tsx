import { Add } from '../kit/icons.tsx';
import {
  type Port,
  portChips,
  portKind,
  portSentence,
  type Project,
  recorderChips,
  recorderKinds,
  recorderSentence,
  renamePort,
  sectionChips,
  sectionSentence,
} from '@jadebell/core/document';
import { Button } from '@mui/material';
import { useSection } from '../section/sectionState.ts';
import { closeAt, openAt } from '../ui/address.ts';
import { removePort } from '../project/excitation.ts';
import { addablePorts, addPort, onlyWires } from './newPort.ts';
import { withRecorder } from './newRecorder.ts';
import { newSection } from './newSection.ts';
import { Chip } from '../ledger/Chip.tsx';
import { methodParts } from '../methods/registry.ts';
import { Entry } from '../ledger/Entry.tsx';
import { glyphOf } from '../ledger/glyphs.tsx';
import { Sentence } from '../ledger/Sentence.tsx';
import { useRename } from '../ledger/useRename.ts';
import { removeEntry, replaceEntry } from '../project/edits.ts';
import { problemsAt, useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { Tool } from '../kit/Tool.tsx';
import { ToolMenu } from '../kit/ToolMenu.tsx';
import { Message } from '../kit/Message.tsx';
import { LedgerFrame } from '../ledger/LedgerFrame.ts';
import { SettingList } from '../kit/SettingList.ts';

/** Gives an entry of a part another name. */
const renamed =
  (part: 'recorders' | 'sections') =>
  (d: Project, from: string, to: string): Project =>
    replaceEntry(d, part, from, { ...d[part].find((e) => e.name === from)!, name: to });

const renameRecorder = renamed('recorders');
const renameSection = renamed('sections');

type Part = 'ports' | 'recorders' | 'sections';
interface EntriesProps<P extends Part> {
  part: P;
  apply(d: Project, from: string, to: string): Project;
  sentence(e: Project[P][number]): ReturnType<typeof portSentence>;
  chips(e: Project[P][number]): ReturnType<typeof portChips>;
  /** Names that a reference may take. */
  bodies: string[];
}

/** The entries of a part, as sentences. */
function Entries<P extends Part>({ part, apply, sentence, chips, bodies }: EntriesProps<P>) {
  const all = useProject((s) => s.document![part]) as Project[P][number][];
  const problems = useModel((s) => s.view.problems);
  const { edit } = useProject.getState();
  const { rename, refusedOf } = useRename(part, apply);
  return all.map((entry, i) => {
    const own = problemsAt(problems, part, entry.name);
    const section = part === 'sections' || (part === 'ports' && portKind(entry as Port).family === 'guided');
    return (
      <Entry
        key={entry.name}
        name={entry.name}
        number={i + 1}
        glyph={glyphOf('kind' in entry ? entry.kind : 'section')}
        problems={[own, refusedOf(entry.name) ?? []].flat()}
        onRemove={() => edit(`remove ${part}`, (d) => (part === 'ports' ? removePort(d, entry.name) : removeEntry(d, part, entry.name)))}
      >
        <span>
          <Sentence
            entry={entry}
            parts={sentence(entry)}
            chips={chips(entry)}
            problems={own}
            bodies={bodies}
            onChange={(next, what) => edit(what, (d) => replaceEntry(d, part, entry.name, next))}
            onRename={(name) => rename(entry.name, name)}
          />
          {section && <ModesTool name={entry.name} />}
        </span>
      </Entry>
    );
  });
}

/** Opens and closes the modes of a section or of a guided port. */
function ModesTool({ name }: { name: string }) {
  const open = useSection((s) => s.open === name);
  return (
    <Tool aria-pressed={open} onClick={() => (open ? closeAt('section') : openAt({ section: name }))}>
      Modes
    </Tool>
  );
}

/** Ports, boundaries and recorders. */
export function FeedLedger() {
  const document = useProject((s) => s.document)!;
  const edit = useProject((s) => s.edit);
  const problems = useModel((s) => s.view.problems);
  const bodies = useModel((s) => s.view.bodies);
  const { solver } = document.solve;
  const { Excitation, Surroundings } = methodParts[solver];
  const feeding = document.ports.filter((p) => portKind(p).role !== 'load');
  const metal = bodies.filter((b) => b.material.kind === 'conductor').map((b) => b.name);
  const filled = [...new Set(bodies.map((b) => b.line))];
  return (
    <LedgerFrame className="ledger" aria-label="Ledger">
      <section aria-label="Ports">
        <header>
          <h2>Ports and sources</h2>
          <span className="grow" />
          <ToolMenu
            adds
            label="Add port or source"
            items={() => addablePorts(document).map(({ kind, title, possible }) => ({ title, disabled: !possible, act: () => addPort(kind) }))}
          />
        </header>
        {!document.ports.length && (
          <p className="quiet pad">
            A port feeds the structure and reads what comes back; a source excites it from without.{' '}
            {metal.length > 1 || onlyWires() ? 'Add one.' : 'Build two conductors with a gap under Shape first, or place one along a path.'}
          </p>
        )}
        <Entries part="ports" apply={renamePort} sentence={portSentence} chips={portChips} bodies={metal} />
        {feeding.length > 0 && <Excitation feeding={feeding} />}
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
                openAt({ section: made.name });
                return { ...d, sections: [...d.sections, made] };
              })
            }
          >
            Add section
          </Button>
        </header>
        <Entries part="sections" apply={renameSection} sentence={sectionSentence} chips={sectionChips} bodies={metal} />
        {!document.sections.length && (
          <p className="quiet pad">A cross-section whose modes are solved by themselves: index, impedance, loss, fields.</p>
        )}
      </section>
      <Surroundings />
      <section aria-label="Recorders">
        <header>
          <h2>Recorders</h2>
          <span className="grow" />
          <ToolMenu
            adds
            label="Add recorder"
            items={() =>
              recorderKinds
                .filter((kind) => kind.solvers.includes(solver))
                .map((kind) => ({
                  title: kind.title,
                  disabled: kind.single && document.recorders.some((e) => e.kind === kind.kind),
                  act: () => edit('add recorder', (d) => withRecorder(d, kind)),
                }))
            }
          />
        </header>
        <Entries part="recorders" apply={renameRecorder} sentence={recorderSentence} chips={recorderChips} bodies={filled} />
        <RecordedFrequencies />
        {problems
          .filter((p) => p.place.part === 'recorders' && !document.recorders.some((r) => r.name === p.place.name))
          .map((p) => (
            <Message key={p.code + p.place.chip} style={{ padding: '0 14px' }}>
              {p.message} {p.fix}
            </Message>
          ))}
      </section>
    </LedgerFrame>
  );
}

/** Frequencies at which recorders keep fields. */
function RecordedFrequencies() {
  const recordAt = useProject((s) => s.document!.recordAt);
  const problems = useModel((s) => s.view.problems);
  const { edit } = useProject.getState();
  return (
    <SettingList>
      <dt>at frequencies</dt>
      <dd>
        {recordAt.map((f, i) => (
          <span key={i} className="row" style={{ gap: 0 }}>
            <Chip
              label={`recorded frequency ${i + 1}`}
              quantity="frequency"
              value={f}
              problems={problemsAt(problems, 'recorders', undefined, `recordAt.${i}`)}
              onChange={(v) => edit('recorded frequency', (d) => ({ ...d, recordAt: d.recordAt.map((o, n) => (n === i ? v : o)) }))}
            />
            <Tool
              bare
              aria-label={`Remove frequency ${f}`}
              onClick={() => edit('remove frequency', (d) => ({ ...d, recordAt: d.recordAt.filter((_, n) => n !== i) }))}
            >
              ×
            </Tool>
          </span>
        ))}
        <Tool onClick={() => edit('add frequency', (d) => ({ ...d, recordAt: [...d.recordAt, d.solve.from] }))}>Add frequency</Tool>
      </dd>
    </SettingList>
  );
}
