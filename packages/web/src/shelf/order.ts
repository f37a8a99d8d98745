import type { ProjectSummary } from '../api/types.ts';

/** Orders of the shelf. */
export const orders = {
  changed: { label: 'newest change first', less: (a: ProjectSummary, b: ProjectSummary) => b.updatedAt.localeCompare(a.updatedAt) },
  title: { label: 'by title', less: (a: ProjectSummary, b: ProjectSummary) => a.title.localeCompare(b.title, 'en', { numeric: true }) },
  runs: { label: 'most runs first', less: (a: ProjectSummary, b: ProjectSummary) => b.runs - a.runs },
};
export type Order = keyof typeof orders;

/** Projects whose title, note or folder has all words of a search, in an order, by folders: those in none come first. */
export function onShelf(projects: readonly ProjectSummary[], search: string, order: Order): { folder: string; projects: ProjectSummary[] }[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const fits = projects.filter((p) => words.every((w) => `${p.title} ${p.note ?? ''} ${p.folder}`.toLowerCase().includes(w)));
  const folders = [...new Set(fits.map((p) => p.folder))].sort((a, b) => a.localeCompare(b, 'en', { numeric: true }));
  return folders.map((folder) => ({ folder, projects: fits.filter((p) => p.folder === folder).sort(orders[order].less) }));
}
