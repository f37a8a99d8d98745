import { cardKinds, freshCard } from '@jadebell/core/cards';
import type { Board } from '@jadebell/core/document';
import type { ResultMeta } from '@jadebell/core/results';
import { freeName } from '../../charts/layout.ts';
import type { MenuEntry } from '../../kit/ToolMenu.tsx';
import { useProject } from '../../project/store.ts';
import { recorderCards } from '../cards/registry.tsx';
import { editBoards } from './boards.ts';

/** Boards as the tabs know them. */
export interface BoardsShown {
  boards: readonly Board[];
  proposed: readonly Board[];
  /** Whether the project has boards of its own. */
  own: boolean;
  at: number;
  /** Opens a board by its name. */
  choose(name: string): void;
}

const namesOf = (boards: readonly Board[]): string[] => boards.map((b) => b.name);

/** Gives the open board another name, or the nearest that is free. */
export function renameBoard({ boards, at, choose }: BoardsShown, name: string): void {
  const own = freeName(namesOf(boards.filter((_, k) => k !== at)), name);
  editBoards('rename board', boards, (all) => all.map((b, i) => (i === at ? { ...b, name: own } : b)));
  choose(own);
}

/** What can be done with the open board and with all. */
export function boardEntries({ boards, proposed, own, at, choose }: BoardsShown, rename: () => void): MenuEntry[] {
  const board = boards[at];
  const add = (label: string, made: Board): void => {
    editBoards(label, boards, (all) => [...all, made]);
    choose(made.name);
  };
  return [
    { title: 'New board', act: () => add('new board', { name: freeName(namesOf(boards), 'Board'), cards: [] }) },
    ...proposed.filter((p) => !boards.some((b) => b.name === p.name)).map((p) => ({ title: `New board: ${p.name}`, act: () => add('new board', p) })),
    { title: 'Rename', act: rename },
    { title: 'Duplicate', act: () => add('duplicate board', { ...board, name: freeName(namesOf(boards), board.name) }) },
    {
      title: 'Remove',
      disabled: boards.length < 2,
      act: () => {
        editBoards('remove board', boards, (all) => all.filter((_, i) => i !== at));
        choose(boards[at ? at - 1 : 1].name);
      },
    },
    {
      title: 'Back to the boards that suit the run',
      disabled: !own,
      act: () => {
        useProject.getState().edit('boards as proposed', (d) => ({ ...d, boards: undefined }));
        choose(proposed[0]?.name ?? '');
      },
    },
  ];
}

/** Cards that can be put on a board that shows such a result. */
export const cardEntries = (meta: ResultMeta, addCard: (card: NonNullable<ReturnType<typeof freshCard>>) => void): MenuEntry[] =>
  [
    ...cardKinds.flatMap((k) => {
      const card = freshCard(k, meta);
      return card ? [{ title: k.title, about: k.about, card }] : [];
    }),
    ...recorderCards(meta).map((r) => ({ ...r, about: 'recorded' })),
  ].map(({ title, about, card }) => ({ title, about, act: () => addCard(card) }));
