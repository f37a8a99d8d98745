import type { VolumeCard as VolumeCardData } from '@jadebell/core/document';
import { formatSI, withPrefix } from '@jadebell/core/expressions/format';
import {
  decibelsOf,
  fieldKinds,
  lackingFor,
  fieldScale,
  inMedia,
  levelSurface,
  percentile,
  type Pieces,
  piecesOf,
  readField,
  sampleVolume,
  type RecordedField,
} from '@jadebell/core/reading';
import { useContext, useMemo } from 'react';
import { Card } from '../../charts/Card.tsx';
import { paint } from '../../charts/colours.ts';
import { SurfaceView } from '../../charts/SurfaceView.tsx';
import type { ViewBody } from '../../workers/protocol.ts';
import { CardContext } from '../../charts/CardContext.ts';
import { usePhase } from '../../lens/useFrequency.ts';
import { stemOf } from './stem.ts';
import { useCardRuns } from './useCardRuns.ts';
import { useField } from './useField.ts';
import { useModelBodies } from '../../lens/useModelBodies.ts';
import { Choice } from '../../kit/Choice.tsx';

const frame = { along: [1, 0, 0], across: [0, 1, 0], normal: [0, 0, 1] } as const;

/** Middle spacing of the samples: what faces are cut into. */
function fineness({ volume }: RecordedField): number {
  const steps = volume.axes.flatMap((a) => (a.length > 1 ? [(a[a.length - 1] - a[0]) / (a.length - 1)] : []));
  return steps.length ? Math.min(...steps) : 1e-3;
}

/** Fields a little off the faces, [n][6]: a sample on a face may lie within the body. Null where the field is not kept. */
function onFaces(field: RecordedField, pieces: Pieces, which: 'e' | 'h', off: number): Float32Array | null {
  const values = field.volume[which];
  if (!values) return null;
  const count = pieces.normals.length / 3;
  const out = new Float32Array(6 * count).fill(NaN);
  for (let n = 0; n < count; n++) {
    const place = [0, 1, 2].map((a) => (pieces.corners[9 * n + a] + pieces.corners[9 * n + 3 + a] + pieces.corners[9 * n + 6 + a]) / 3 + off * pieces.normals[3 * n + a]) as [number, number, number]; // prettier-ignore
    // Just beyond the box the fields at its edge stand for those on the face.
    for (let a = 0; a < 3; a++) {
      const axis = field.volume.axes[a];
      const [lo, hi] = [axis[0], axis[axis.length - 1]];
      if (place[a] < lo && place[a] > lo - 2 * off) place[a] = lo;
      else if (place[a] > hi && place[a] < hi + 2 * off) place[a] = hi;
    }
    sampleVolume(field.volume.axes, values, place, out, 6 * n);
  }
  return out;
}

/** n x H on faces, [n][6], A/m. */
function currents(h: Float32Array, normals: Float32Array): Float32Array {
  const out = new Float32Array(h.length);
  for (let n = 0; n < normals.length / 3; n++)
    for (const p of [0, 1]) {
      const [x, y, z] = [h[6 * n + p], h[6 * n + 2 + p], h[6 * n + 4 + p]];
      const [a, b, c] = [normals[3 * n], normals[3 * n + 1], normals[3 * n + 2]];
      out[6 * n + p] = b * z - c * y;
      out[6 * n + 2 + p] = c * x - a * z;
      out[6 * n + 4 + p] = a * y - b * x;
    }
  return out;
}

const titles: Record<VolumeCardData['on'], string> = { faces: 'Field on faces', level: 'Field at one level', currents: 'Current on metal' };

/** A field on the faces of bodies, as a surface of one level, or the currents on metal. */
export function VolumeCard({ card }: { card: VolumeCardData }) {
  const board = useContext(CardContext)!;
  const [shown] = useCardRuns();
  const { field, missing } = useField(shown?.run, card.recorder);
  const bodies = useModelBodies(shown?.run);
  const title = card.title ?? titles[card.on];
  const lacking =
    field &&
    (card.on === 'currents'
      ? lackingFor({ needs: ['h'], whole: true }, field.volume)
      : lackingFor(fieldKinds[card.quantity], field.volume, card.part));
  return (
    <Card
      title={title}
      about={
        field
          ? `${card.on === 'currents' ? '|n × H|' : card.quantity} of ${card.recorder}, ${card.form}, ${shown.label}, ${formatSI(field.frequency, 'frequency')}`
          : shown?.label
      }
      file={stemOf(shown, title)}
      flush
      tools={
        <Choice
          label="Shown on"
          value={card.on}
          options={[
            { value: 'faces', label: 'faces' },
            { value: 'level', label: 'one level' },
            { value: 'currents', label: 'currents' },
          ]}
          onChange={(on) => board.change({ on } as Partial<VolumeCardData>)}
        />
      }
    >
      {!field ? (
        <p className="quiet pad">{missing ? `There is no box of fields ${card.recorder}.` : 'Reading the field …'}</p>
      ) : lacking ? (
        <p className="quiet pad">
          {card.recorder} keeps no {lacking}. Let the box keep E and H with all components in Feed, and run it anew.
        </p>
      ) : field.flat !== null ? (
        <p className="quiet pad">{card.recorder} is flat: a field in space needs a box with three extents.</p>
      ) : (
        <Space card={card} field={field} bodies={bodies} />
      )}
    </Card>
  );
}

function Space({ card, field: recorded, bodies }: { card: VolumeCardData; field: RecordedField; bodies: readonly ViewBody[] }) {
  const field = useMemo(
    () => ({
      ...recorded,
      volume: card.on === 'currents' ? recorded.volume : inMedia(recorded.volume, card.quantity, recorded.frequency, recorded.filling),
    }),
    [recorded, card.on, card.quantity],
  );
  const lens = usePhase();
  const phase = card.form === 'instant' || card.arrows ? lens : 0;
  const onLevel = card.on === 'level';
  const pieces = useMemo(() => {
    if (onLevel) return null;
    const step = fineness(field);
    const chosen = bodies.filter((b) => card.on !== 'currents' || b.material.kind === 'conductor');
    const all = chosen.map((b) => piecesOf(b.positions, b.triangles, field.volume.axes, 1.5 * step));
    const joined = (pick: (p: Pieces) => Float32Array): Float32Array => {
      const out = new Float32Array(all.reduce((n, p) => n + pick(p).length, 0));
      let at = 0;
      for (const p of all) {
        out.set(pick(p), at);
        at += pick(p).length;
      }
      return out;
    };
    return { corners: joined((p) => p.corners), normals: joined((p) => p.normals), off: 0.75 * step };
  }, [field, bodies, card.on, onLevel]);
  const samples = useMemo(() => {
    if (!pieces) return null;
    const h = onFaces(field, pieces, 'h', pieces.off);
    if (card.on === 'currents') return { e: h && currents(h, pieces.normals), h: null };
    return { e: onFaces(field, pieces, 'e', pieces.off), h };
  }, [field, pieces, card.on]);
  const { form } = card;
  const quantity = card.on === 'currents' ? 'E' : card.quantity;
  const part = card.on === 'currents' || card.part === 'normal' || card.part === 'tangential' ? 'size' : card.part;
  const reading = useMemo(() => ({ quantity, part, form }), [quantity, part, form]);
  const kind = fieldScale(reading);
  const whole = useMemo(() => {
    const { axes, e, h } = field.volume;
    return onLevel
      ? { source: { ...frame, e, h }, count: axes[0].length * axes[1].length * axes[2].length }
      : { source: { ...frame, ...samples! }, count: (pieces?.normals.length ?? 0) / 3 };
  }, [field, onLevel, samples, pieces]);
  const top = useMemo(() => {
    if (card.range === 'fixed' && card.top) return card.top;
    const still = readField(whole.source, { quantity, part, form: form === 'instant' ? 'peak' : form }, 0, new Float64Array(whole.count));
    return percentile(still, card.range === 'all' ? 1 : 0.995) || 1;
  }, [whole, quantity, part, form, card.range, card.top]);
  const values = useMemo(
    () => readField(whole.source, reading, form === 'instant' ? phase : 0, new Float64Array(whole.count)),
    [whole, reading, form, phase],
  );
  const surface = useMemo(
    () => (onLevel ? levelSurface(field.volume.axes, Float64Array.from(values, Math.abs), card.level * top) : pieces!.corners),
    [onLevel, field, values, card.level, top, pieces],
  );
  const colours = useMemo(() => {
    const count = surface.length / 9;
    const out = new Float32Array(9 * count);
    const scale = { top, db: card.db, span: card.span, perDecade: decibelsOf(quantity) };
    for (let n = 0; n < count; n++) {
      const v = onLevel ? card.level * top : values[n];
      for (let corner = 0; corner < 3; corner++) paint(kind, v, scale, out, 9 * n + 3 * corner);
    }
    return out;
  }, [surface, values, kind, quantity, card.db, card.span, card.level, top, onLevel]);
  const arrows = useMemo(() => {
    if (onLevel || !card.arrows || !pieces || !samples?.e) return null;
    return surfaceArrows(pieces, quantity === 'H' ? samples.h : samples.e, phase, top, fineness(field));
  }, [onLevel, card.arrows, pieces, samples, quantity, phase, top, field]);
  const unit = card.on === 'currents' ? 'A/m' : fieldKinds[card.quantity].unit;
  const told = (v: number): string => withPrefix(v, unit, 3);
  const [upper, lower] =
    kind === 'cyclic' ? ['180°', '−180°'] : [told(top), kind === 'signed' ? `−${told(top)}` : card.db ? `−${card.span} dB` : '0'];
  return <SurfaceView corners={surface} colours={colours} arrows={arrows} bodies={bodies} solid={!onLevel} upper={upper} lower={lower} map={kind} />;
}

/** Length of the shortest arrow over the longest, and the part of the largest value below which there is none. */
const leastArrow = 0.5;
const faintest = 0.02;

/** Arrows along faces as triangles [n][3][3]: one in each cell of a coarse raster, as long and wide as the root of the size. */
function surfaceArrows(pieces: Pieces, field: Float32Array | null, phase: number, top: number, step: number): Float32Array {
  if (!field) return new Float32Array();
  const [c, s] = [Math.cos(phase), Math.sin(phase)];
  const apart = 6 * step;
  const taken = new Set<string>();
  const out: number[] = [];
  for (let n = 0; n < pieces.normals.length / 3; n++) {
    const place = [0, 1, 2].map((a) => (pieces.corners[9 * n + a] + pieces.corners[9 * n + 3 + a] + pieces.corners[9 * n + 6 + a]) / 3);
    const normal = [0, 1, 2].map((a) => pieces.normals[3 * n + a]);
    const key = place.map((p, a) => `${Math.round(p / apart)}${normal[a] > 0.5 ? '+' : normal[a] < -0.5 ? '-' : ''}`).join(',');
    if (taken.has(key)) continue;
    const v = [0, 1, 2].map((a) => c * field[6 * n + 2 * a] - s * field[6 * n + 2 * a + 1]);
    const across = v[0] * normal[0] + v[1] * normal[1] + v[2] * normal[2];
    const flat = v.map((x, a) => x - across * normal[a]);
    const size = Math.hypot(flat[0], flat[1], flat[2]);
    if (!(size > faintest * top)) continue;
    taken.add(key);
    // Colours tell the size: an arrow is never so short that its direction is lost.
    const length = 0.9 * apart * Math.max(leastArrow, Math.sqrt(Math.min(1, size / top)));
    const d = flat.map((x) => x / size);
    const side = [normal[1] * d[2] - normal[2] * d[1], normal[2] * d[0] - normal[0] * d[2], normal[0] * d[1] - normal[1] * d[0]];
    const lift = place.map((p, a) => p + 0.12 * step * normal[a]);
    const end = (along: number, aside: number): number[] => lift.map((p, a) => p + along * length * d[a] + aside * length * side[a]);
    // A shaft of two triangles, and a head.
    out.push(...end(-0.5, 0.05), ...end(0.15, 0.05), ...end(-0.5, -0.05), ...end(0.15, 0.05), ...end(0.15, -0.05), ...end(-0.5, -0.05));
    out.push(...end(0.15, 0.2), ...end(0.5, 0), ...end(0.15, -0.2));
  }
  return Float32Array.from(out);
}
