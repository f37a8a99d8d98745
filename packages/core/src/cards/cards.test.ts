import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { unpackResult } from '../results/index.ts';
import { cardKind, cardKinds, cardSchema, cardWith, firstTerms, freshCard, termsOfS } from './index.ts';

const folder = new URL('../../../../demo/results/', import.meta.url);
const metas = readdirSync(folder)
  .filter((f) => f.endsWith('.zip'))
  .map((name) => ({ name, meta: unpackResult(readFileSync(new URL(name, folder))).meta }));
const place = { x: 0, y: 0, w: 6, h: 6 };

describe('kinds of cards', () => {
  test.each(metas)('a new card of each kind that $name offers is a card of a document as it stands', ({ meta }) => {
    const made = cardKinds.flatMap((kind) => {
      const card = freshCard(kind, meta);
      if (!card) return [];
      const { w: _w, h: _h, ...rest } = card;
      return [cardWith({ ...rest, id: 'c1', place } as Parameters<typeof cardWith>[0])];
    });
    // Words and a balance can always be had; what was not recorded is not offered.
    expect(made.map((c) => c.kind)).toEqual(expect.arrayContaining(['note', 'evidence', 'table', 'curves']));
    expect(made.some((c) => c.kind === 'pattern')).toBe(!!(meta.farField ?? meta.scattered));
    expect(made.some((c) => c.kind === 'wires')).toBe(!!meta.wires && meta.recordAt.length > 0);
    expect(made.some((c) => c.kind === 'modes')).toBe(meta.ports.some((p) => p.mode !== undefined));
    for (const card of made) {
      expect(cardKind(card).kind).toBe(card.kind);
      expect(cardSchema.parse(JSON.parse(JSON.stringify(card)))).toEqual(card);
    }
  });

  test('each has a name of its own, and a document takes no other', () => {
    expect(new Set(cardKinds.map((c) => c.kind)).size).toBe(cardKinds.length);
    expect(new Set(cardKinds.map((c) => c.title)).size).toBe(cardKinds.length);
    expect(cardSchema.safeParse({ kind: 'clock', id: 'c1', place }).success).toBe(false);
    expect(cardSchema.safeParse({ kind: 'note', id: 'c1', place, text: 'so', more: 1 }).success).toBe(false);
  });

  test.each(metas)('curves of $name begin with a reflection, and no more than four', ({ meta }) => {
    const terms = firstTerms(meta);
    expect(terms.length).toBeLessThanOrEqual(4);
    expect(terms.length > 0).toBe(meta.excitations.length > 0);
    if (terms.length) expect(terms[0]).toBe(termsOfS(meta)[0].key);
    expect(termsOfS(meta)).toHaveLength(meta.ports.length * meta.excitations.length);
  });
});
