/** A piece of the guide below one heading. */
export interface Chapter {
  /** The document it stands in, by its file. */
  file: string;
  title: string;
  /** 1 for the document itself, 2 for its parts, and so on. */
  level: number;
  /** Markdown below the heading, up to the next. */
  text: string;
}

/** Documents of the guide in the order of the contents. */
export const documents = { 'user-guide.md': 'User guide', 'physics.md': 'Physics', 'reference.md': 'Reference' } as const;
export type DocumentFile = keyof typeof documents;

/** Cuts a document at its headings; code blocks are left whole, pictures left out, as they are not shipped. */
export function chaptersOf(file: string, markdown: string): Chapter[] {
  const out: Chapter[] = [];
  let fenced = false;
  for (const line of markdown.split('\n')) {
    if (/^\s*```/.test(line)) fenced = !fenced;
    const head = fenced ? null : /^(#{1,4})\s+(.*)$/.exec(line);
    if (head) out.push({ file, title: head[2].trim(), level: head[1].length, text: '' });
    else if (out.length && !/^\s*!\[.*\]\(.*\)\s*$/.test(line)) out[out.length - 1].text += `${line}\n`;
  }
  return out;
}

/** Words of a text in small letters, without the marks of Markdown. */
const plain = (text: string): string => text.replaceAll(/[*_`#|\\]/g, '').replaceAll(/\s+/g, ' ').toLowerCase(); // prettier-ignore

/** Characters that are told around what was found. */
const around = 60;

/** Chapters that have all words of a search, those with more of them in the title first, with a piece of text around the first word. */
export function search(chapters: readonly Chapter[], asked: string): { chapter: Chapter; piece: string }[] {
  const words = plain(asked).split(' ').filter(Boolean);
  if (!words.length) return [];
  const inTitle = (c: Chapter): number => words.filter((w) => plain(c.title).includes(w)).length;
  return chapters
    .filter((c) => words.every((w) => plain(`${c.title} ${c.text}`).includes(w)))
    .sort((a, b) => inTitle(b) - inTitle(a))
    .map((chapter) => {
      const text = plain(chapter.text);
      const at = Math.max(0, text.indexOf(words.find((w) => text.includes(w)) ?? words[0]));
      const [from, to] = [Math.max(0, at - around), at + around];
      return { chapter, piece: `${from ? '…' : ''}${text.slice(from, to).trim()}${to < text.length ? '…' : ''}` };
    });
}
