import type { Board } from '@jadebell/core/document';
import type { ResultMeta } from '@jadebell/core/results';
import { Menu, MenuItem } from '@mui/material';
import { useContext, useRef, useState } from 'react';
import type { Run } from '../../api/types.ts';
import { useProject } from '../../project/store.ts';
import { cardKinds, freshCard } from '@jadebell/core/cards';
import { recorderCards } from '../cards/registry.tsx';
import { importData } from '../data/importData.ts';
import { boardReport } from '../report/boardReport.ts';
import { useShown } from '../../lens/useShown.ts';
import { BoardContext } from './BoardContext.ts';
import { editBoards } from './boards.ts';
import { freeName } from '../../charts/layout.ts';

interface Props {
  boards: readonly Board[];
  proposed: readonly Board[];
  /** Whether the project has boards of its own. */
  own: boolean;
  at: number;
  meta: ResultMeta;
  run: Run;
  /** Of what the fields are. */
  lit: string;
  /** Opens a board by its name. */
  choose(name: string): void;
}

/** The project's boards, what can be put on the open one, and what can be done with it. */
export function BoardTabs({ boards, proposed, own, at, meta, run, lit, choose }: Props) {
  const { addCard } = useContext(BoardContext)!;
  const shown = useShown();
  const data = useProject((s) => s.document?.data) ?? [];
  const [menu, setMenu] = useState<{ kind: 'add' | 'board'; anchor: HTMLElement } | null>(null);
  const [renaming, setRenaming] = useState<string | null>(null);
  const [told, setTold] = useState<{ text: string; bad: boolean } | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const board = boards[at];
  const close = (): void => setMenu(null);
  const edit = (label: string, change: (all: Board[]) => Board[]): void => editBoards(label, boards, change);
  const rename = (): void => {
    const name = renaming?.trim();
    if (name && name !== board.name && name.length <= 60) {
      const others = boards.filter((_, k) => k !== at);
      const own = freeName(
        others.map((b) => b.name),
        name,
      );
      edit('rename board', (all) => all.map((b, i) => (i === at ? { ...b, name: own } : b)));
      choose(own);
    }
    setRenaming(null);
  };
  const cards = [
    ...cardKinds.flatMap((k) => {
      const card = freshCard(k, meta);
      return card ? [{ title: k.title, about: k.about, card }] : [];
    }),
    ...recorderCards(meta).map((r) => ({ ...r, about: 'recorded' })),
  ];
  const missing = proposed.filter((p) => !boards.some((b) => b.name === p.name));
  const entry = (title: string, act: () => void, about?: string, disabled = false) => (
    <MenuItem
      key={title}
      disabled={disabled}
      onClick={() => {
        close();
        act();
      }}
    >
      {title}
      {about && (
        <span className="quiet" style={{ marginLeft: 12, fontSize: 12 }}>
          {about}
        </span>
      )}
    </MenuItem>
  );
  return (
    <div className="board-tabs">
      <div role="tablist" aria-label="Boards" className="row" style={{ gap: 2 }}>
        {boards.map((b, i) =>
          i === at && renaming !== null ? (
            <input
              key="renaming"
              className="chip"
              aria-label="Name of the board"
              autoFocus
              maxLength={60}
              value={renaming}
              onChange={(e) => setRenaming(e.target.value)}
              onBlur={rename}
              onKeyDown={(e) => {
                if (e.key === 'Enter') rename();
                if (e.key === 'Escape') setRenaming(null);
              }}
            />
          ) : (
            <button
              key={`${b.name} ${i}`}
              type="button"
              role="tab"
              aria-selected={i === at}
              className="board-tab"
              onClick={() => choose(b.name)}
              onDoubleClick={() => setRenaming(b.name)}
            >
              {b.name}
            </button>
          ),
        )}
      </div>
      <button type="button" className="tool" aria-haspopup="menu" onClick={(e) => setMenu({ kind: 'add', anchor: e.currentTarget })}>
        + Card
      </button>
      <button type="button" className="tool" aria-haspopup="menu" onClick={(e) => setMenu({ kind: 'board', anchor: e.currentTarget })}>
        Board
      </button>
      {told && (
        <span role={told.bad ? 'alert' : 'status'} className={told.bad ? 'bad' : 'quiet'}>
          {told.text}
        </span>
      )}
      <span className="grow" />
      <span className="quiet">{lit}</span>
      <input
        ref={file}
        type="file"
        className="hidden-file"
        aria-label="Data to compare with"
        tabIndex={-1}
        multiple
        accept=".s1p,.s2p,.s3p,.s4p,.snp,.ts,.csv,.txt,.tsv"
        onChange={(e) => {
          const files = [...(e.target.files ?? [])];
          e.target.value = '';
          void importData(files).then((r) => {
            setTold(r);
            if (r.card) addCard(r.card);
          });
        }}
      />
      <Menu anchorEl={menu?.anchor} open={menu?.kind === 'add'} onClose={close} slotProps={{ list: { dense: true } }}>
        {cards.map((c) => entry(c.title, () => addCard(c.card), c.about))}
      </Menu>
      <Menu anchorEl={menu?.anchor} open={menu?.kind === 'board'} onClose={close} slotProps={{ list: { dense: true } }}>
        {entry('New board', () => {
          const name = freeName(
            boards.map((b) => b.name),
            'Board',
          );
          edit('new board', (all) => [...all, { name, cards: [] }]);
          choose(name);
        })}
        {missing.map((p) =>
          entry(`New board: ${p.name}`, () => {
            edit('new board', (all) => [...all, p]);
            choose(p.name);
          }),
        )}
        {entry('Rename', () => setRenaming(board.name))}
        {entry('Duplicate', () => {
          const name = freeName(
            boards.map((b) => b.name),
            board.name,
          );
          edit('duplicate board', (all) => [...all, { ...board, name }]);
          choose(name);
        })}
        {entry(
          'Remove',
          () => {
            edit('remove board', (all) => all.filter((_, i) => i !== at));
            choose(boards[at ? at - 1 : 1].name);
          },
          undefined,
          boards.length < 2,
        )}
        {entry(
          'Back to the boards that suit the run',
          () => {
            useProject.getState().edit('boards as proposed', (d) => ({ ...d, boards: undefined }));
            choose(proposed[0]?.name ?? '');
          },
          undefined,
          !own,
        )}
        {entry('Bring in data', () => file.current?.click(), 'Touchstone, CSV')}
        {data.map((d) =>
          entry(`Remove data: ${d.name}`, () =>
            useProject.getState().edit('remove data', (p) => ({ ...p, data: p.data?.filter((o) => o.name !== d.name) })),
          ),
        )}
        {entry('Report of this board', () => void boardReport(board.name, run, shown).then(setTold), 'one HTML file')}
        {entry('Print or save as PDF', () => window.print())}
      </Menu>
    </div>
  );
}
