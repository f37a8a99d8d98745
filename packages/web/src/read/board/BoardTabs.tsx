import type { ResultMeta } from '@jadebell/core/results';
import { Tab, Tabs } from '@mui/material';
import { useContext, useRef, useState } from 'react';
import type { Run } from '../../api/types.ts';
import { TypedField } from '../../kit/Field.tsx';
import { FilePicker } from '../../kit/FilePicker.tsx';
import { ToolMenu } from '../../kit/ToolMenu.tsx';
import { useShown } from '../../lens/useShown.ts';
import { useProject } from '../../project/store.ts';
import { importData } from '../data/importData.ts';
import { boardReport } from '../report/boardReport.ts';
import { BoardContext } from './BoardContext.ts';
import { boardEntries, type BoardsShown, cardEntries, renameBoard } from './boardMenu.ts';

interface Props extends BoardsShown {
  meta: ResultMeta;
  run: Run;
  /** Of what the fields are. */
  lit: string;
}

/** The project's boards, what can be put on the open one, and what can be done with it. */
export function BoardTabs({ meta, run, lit, ...shown }: Props) {
  const { boards, at, choose } = shown;
  const { addCard } = useContext(BoardContext)!;
  const runs = useShown();
  const data = useProject((s) => s.document?.data) ?? [];
  const edit = useProject((s) => s.edit);
  const [renaming, setRenaming] = useState(false);
  const [told, setTold] = useState<{ text: string; bad: boolean } | null>(null);
  const file = useRef<HTMLInputElement>(null);
  return (
    <div className="board-tabs">
      <Tabs value={at} onChange={(_, i: number) => choose(boards[i].name)} aria-label="Boards" variant="scrollable">
        {boards.map((b, i) => (
          <Tab key={`${b.name} ${i}`} label={b.name} onDoubleClick={() => setRenaming(true)} />
        ))}
      </Tabs>
      {renaming && (
        <TypedField
          label="Name of the board"
          autoFocus
          whole
          maxLength={60}
          value={boards[at].name}
          onChange={(name) => name && renameBoard(shown, name)}
          onDone={() => setRenaming(false)}
        />
      )}
      <ToolMenu label="+ Card" items={() => cardEntries(meta, addCard)} />
      <ToolMenu
        label="Board"
        items={() => [
          ...boardEntries(shown, () => setRenaming(true)),
          { title: 'Bring in data', about: 'Touchstone, CSV', act: () => file.current?.click() },
          ...data.map((d) => ({
            title: `Remove data: ${d.name}`,
            act: () => edit('remove data', (p) => ({ ...p, data: p.data?.filter((o) => o.name !== d.name) })),
          })),
          { title: 'Report of this board', about: 'one HTML file', act: () => void boardReport(boards[at].name, run, runs).then(setTold) },
          { title: 'Print or save as PDF', act: () => window.print() },
        ]}
      />
      {told && (
        <span role={told.bad ? 'alert' : 'status'} className={told.bad ? 'bad' : 'quiet'}>
          {told.text}
        </span>
      )}
      <span className="grow" />
      <span className="quiet">{lit}</span>
      <FilePicker
        ref={file}
        label="Data to compare with"
        multiple
        accept=".s1p,.s2p,.s3p,.s4p,.snp,.ts,.csv,.txt,.tsv"
        onFiles={(files) =>
          void importData(files).then((r) => {
            setTold(r);
            if (r.card) addCard(r.card);
          })
        }
      />
    </div>
  );
}
