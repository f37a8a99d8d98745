import type { Project } from '@jadebell/core/document';
import { projectFull } from '@jadebell/api';
import { z } from 'zod';
import { create } from 'zustand';
import { ApiError, getJson, sendJson } from '../api/client.ts';

/** Milliseconds within which edits under one label become one step of undo. */
const oneEdit = 900;
const saveAfter = 500;
const deepest = 300;

interface State {
  id: string | null;
  document: Project | null;
  revision: number;
  past: Project[];
  future: Project[];
  saved: 'saved' | 'saving' | 'unsaved' | 'failed';
  /** Why loading or saving failed. */
  fault: string | null;
  /** Name of the line, port or recorder that is picked, and the one under the pointer. */
  picked: string | null;
  lit: string | null;
  load(id: string): Promise<void>;
  /** Replaces the document; edits with the same label in quick succession are one step. */
  edit(label: string, change: (d: Project) => Project): void;
  undo(): void;
  redo(): void;
  pick(name: string | null): void;
  light(name: string | null): void;
  saveNow(): Promise<void>;
}

let lastLabel = '';
let lastTime = 0;
let timer: ReturnType<typeof setTimeout> | undefined;
let saving: Promise<void> | null = null;

/** The open project with its history; edits save by themselves. */
export const useProject = create<State>((set, get) => {
  const later = (): void => {
    set({ saved: 'unsaved' });
    clearTimeout(timer);
    timer = setTimeout(() => void get().saveNow(), saveAfter);
  };
  return {
    id: null,
    document: null,
    revision: 0,
    past: [],
    future: [],
    saved: 'saved',
    fault: null,
    picked: null,
    lit: null,
    async load(id) {
      lastLabel = '';
      set({ id, document: null, past: [], future: [], fault: null, saved: 'saved', picked: null, lit: null });
      try {
        const full = await getJson(`/projects/${id}`, projectFull);
        if (get().id === id) set({ document: full.document, revision: full.revision });
      } catch (error) {
        set({ fault: (error as Error).message });
      }
    },
    edit(label, change) {
      const { document, past } = get();
      if (!document) return;
      const next = change(document);
      if (next === document) return;
      const now = Date.now();
      const same = label === lastLabel && now - lastTime < oneEdit;
      lastLabel = label;
      lastTime = now;
      set({ document: next, past: same ? past : [...past.slice(-deepest), document], future: [] });
      later();
    },
    undo() {
      const { document, past, future } = get();
      if (!document || !past.length) return;
      lastLabel = '';
      set({ document: past[past.length - 1], past: past.slice(0, -1), future: [document, ...future] });
      later();
    },
    redo() {
      const { document, past, future } = get();
      if (!document || !future.length) return;
      lastLabel = '';
      set({ document: future[0], past: [...past, document], future: future.slice(1) });
      later();
    },
    pick: (picked) => set({ picked }),
    light: (lit) => {
      if (get().lit !== lit) set({ lit });
    },
    async saveNow() {
      clearTimeout(timer);
      // One save at a time: the next one needs the revision that this one brings.
      while (saving) await saving;
      const { id, document, revision, saved } = get();
      if (!id || !document || saved === 'saved') return;
      set({ saved: 'saving' });
      saving = sendJson('PUT', `/projects/${id}`, { revision, document }, z.object({ revision: z.int() }))
        .then((answer) => {
          if (get().id === id) set({ revision: answer.revision, fault: null, saved: get().document === document ? 'saved' : 'unsaved' });
        })
        .catch((error: ApiError) => {
          set({ saved: 'failed', fault: error.message });
          // Nothing is lost: it is tried again until the server answers.
          if (error.status === 0) timer = setTimeout(() => void get().saveNow(), 3000);
        });
      await saving;
      saving = null;
    },
  };
});

window.addEventListener('beforeunload', (event) => {
  const { saved } = useProject.getState();
  if (saved === 'saved') return;
  void useProject.getState().saveNow();
  event.preventDefault();
});
