import type { Line, Part, Project } from '@jadebell/core/document';
import type { SentProject } from './protocol.ts';

/** Sends projects so that only lines and parts that changed travel; an edit leaves the others the same objects. */
export class ProjectSender {
  private readonly numbers = new WeakMap<object, number>();
  private next = 0;

  pack({ lines, parts = [], ...rest }: Project): SentProject {
    const fresh: SentProject['fresh'] = [];
    const number = (entry: Line | Part): number => {
      let n = this.numbers.get(entry);
      if (n === undefined) {
        n = this.next++;
        this.numbers.set(entry, n);
        fresh.push([n, entry]);
      }
      return n;
    };
    return { rest, lines: lines.map(number), parts: parts.map(number), fresh };
  }
}

/** Puts them together again; the same line is the same object every time. Lines that have not been used for long are forgotten only with the worker. */
export class ProjectReceiver {
  private readonly entries = new Map<number, Line | Part>();

  unpack({ rest, lines, parts, fresh }: SentProject): Project {
    for (const [n, entry] of fresh) this.entries.set(n, entry);
    const all = <T>(list: number[]): T[] => list.map((n) => this.entries.get(n) as T);
    return { ...rest, lines: all<Line>(lines), ...(parts.length ? { parts: all<Part>(parts) } : {}) };
  }
}
