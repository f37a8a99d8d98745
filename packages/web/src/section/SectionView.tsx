import { formatSI } from '@jadebell/core/expressions/format';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useProject } from '../project/store.ts';
import { closeAt } from '../ui/address.ts';
import { quantitiesOf } from './display.ts';
import { ModeDetails, ModeTable } from './ModeTable.tsx';
import { SectionCanvas } from './SectionCanvas.tsx';
import { ConvergenceStudy, SweepStudy } from './SectionStudies.tsx';
import { askSection, promptCells, stopSection, useSection } from './sectionState.ts';
import { Tool } from '../kit/Tool.tsx';
import { Choice } from '../kit/Choice.tsx';
import { Message } from '../kit/Message.tsx';
import { SectionFrame } from './SectionFrame.ts';
import { copyTable } from '../kit/tableText.ts';

const tabs = { modes: 'Modes', sweep: 'Over frequency', grid: 'Finer grids' } as const;
type Tab = keyof typeof tabs;

const busyWords = { prepare: 'laying the grid', modes: 'solving the modes', sweep: 'following the modes', converge: 'solving on finer grids' };

/** The cross-section that is open, in place of the stage view: bodies and grid, modes and their fields, studies. */
export default function SectionView() {
  const { open, prepared, modes, problems, fault, busy, chosen } = useSection();
  const lower = useRef<HTMLDivElement>(null);
  const band = useProject((s) => s.document!.solve);
  const [tab, setTab] = useState<Tab>('modes');
  const [shown, setShown] = useState('e');
  const [mesh, setMesh] = useState(false);
  const entry = useOpenSection(open);
  const letters = prepared ? [...prepared.axes, prepared.normal].map((a) => 'xyz'[a]).join('') : 'xyz';
  const quantities = useMemo(() => quantitiesOf(letters), [letters]);
  const field = modes?.fields[chosen] ?? null;
  const errors = problems.filter((p) => p.severity === 'error');
  return (
    <SectionFrame aria-label={`Section ${open}`}>
      <header className="row">
        <Tool onClick={() => closeAt('section')}>Back to the model</Tool>
        <h2>{open}</h2>
        {prepared && (
          <span className="quiet">
            across {letters[2]} at {formatSI(prepared.at, 'length', 4)} · {formatSI(prepared.frequency, 'frequency', 5)} ·{' '}
            {prepared.cells.toLocaleString('en')} cells, {prepared.x.length - 1} by {prepared.y.length - 1}
          </span>
        )}
        <span className="grow" />
        <Choice
          label="Field shown"
          value={shown}
          options={[{ value: 'none', label: 'bodies' }, ...Object.entries(quantities).map(([value, { label }]) => ({ value, label }))]}
          onChange={setShown}
        />
        <Tool aria-pressed={mesh} onClick={() => setMesh(!mesh)}>
          Grid
        </Tool>
      </header>
      {errors.map((p) => (
        <Message bar key={p.code + p.message}>
          {p.message} {p.fix}
        </Message>
      ))}
      {fault && <Message bar>{fault}</Message>}
      {prepared ? (
        <SectionCanvas section={prepared} field={shown === 'none' ? null : field} quantity={quantities[shown] ?? quantities.e} grid={mesh} />
      ) : (
        <p className="quiet pad">{errors.length ? 'Mend the section in the ledger; it is solved again at once.' : 'Laying the grid …'}</p>
      )}
      <StudyBar tab={tab} onTab={setTab} onCopy={() => void copyTable(lower.current)} />
      <div className="section-lower" ref={lower}>
        {tab === 'modes' &&
          (modes?.figures.length ? (
            <>
              <ModeTable figures={modes.figures} chosen={chosen} axes={letters} onChoose={(n) => useSection.setState({ chosen: n })} />
              <ModeDetails figures={modes.figures} chosen={chosen} />
            </>
          ) : (
            <p className="quiet pad">{modes ? 'No mode was found.' : busy ? 'Solving …' : 'No modes solved yet.'}</p>
          ))}
        {tab === 'sweep' && <SweepStudy key={open} entry={entry} band={[band.from, band.to]} />}
        {tab === 'grid' && <ConvergenceStudy />}
      </div>
    </SectionFrame>
  );
}

/** The section by its name, null for that of a port; asks for its grid whenever what it rests on changes, and leaves when it is gone. */
function useOpenSection(open: string | null) {
  const document = useProject((s) => s.document)!;
  const entry = document.sections.find((s) => s.name === open) ?? null;
  const port = document.ports.find((p) => p.name === open) ?? null;
  const gone = !entry && !port;
  useEffect(() => {
    if (gone) closeAt('section');
  }, [gone]);
  // What the modes rest on; other edits leave them as they are.
  const { parameters, materials, parts, lines } = document;
  const band = entry ? '' : `${document.solve.from} ${document.solve.to} ${document.solve.accuracy}`;
  useEffect(() => {
    if (gone) return;
    const wait = setTimeout(() => askSection(useProject.getState().document!, { task: 'prepare' }), 120);
    return () => clearTimeout(wait);
  }, [gone, entry, port, parameters, materials, parts, lines, band]);
  return entry;
}

/** Which study is in view, what is being solved, and what can be asked for. */
function StudyBar({ tab, onTab, onCopy }: { tab: Tab; onTab(tab: Tab): void; onCopy(): void }) {
  const { prepared, modes, passes, busy } = useSection();
  const rows = tab === 'modes' ? modes?.figures.length : tab === 'grid' && passes.length;
  return (
    <nav className="row section-tabs" aria-label="What is shown of the section">
      {(Object.keys(tabs) as Tab[]).map((key) => (
        <Tool key={key} aria-pressed={tab === key} onClick={() => onTab(key)}>
          {tabs[key]}
        </Tool>
      ))}
      <span className="grow" />
      {busy && busy.task !== 'prepare' ? (
        <>
          <span className="quiet" role="status">
            {busyWords[busy.task]}
            {busy.of ? `, ${busy.done} of ${busy.of}` : ''}
          </span>
          <Tool onClick={stopSection}>Stop and keep</Tool>
        </>
      ) : (
        <>
          {modes && <span className="quiet">solved in {modes.seconds.toPrecision(2)} s</span>}
          {prepared && !modes && prepared.cells > promptCells && <span className="quiet">more cells than are solved at once while you edit</span>}
          {rows ? <Tool onClick={onCopy}>Copy as table</Tool> : null}
          <Tool disabled={!prepared} onClick={() => askSection(useProject.getState().document!, { task: 'modes' })}>
            Solve modes
          </Tool>
        </>
      )}
    </nav>
  );
}
