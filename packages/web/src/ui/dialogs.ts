import { create } from 'zustand';

export type DialogName = 'materials' | 'calculator' | 'import' | 'export';
/** Which of the large dialogs is open, and a file that one of them was opened with. */
export const useDialogs = create<{ open: DialogName | null; file: File | null; show(name: DialogName, file?: File): void; close(): void }>((set) => ({
  open: null,
  file: null,
  show: (open, file) => set({ open, file: file ?? null }),
  close: () => set({ open: null, file: null }),
}));
