import { type Project, type Study, variesAbout } from '@jadebell/core/document';
import { askTolerance, meshLimit, meshMoved, type Plan, pointText, type SolvedPoint, type ToldTolerance } from '@jadebell/core/exploring';
import { valueText } from '@jadebell/core/reading';
import { toleranceOf } from '@jadebell/core/searching';

const percent = (share: number): string => `${(100 * share).toFixed(1)} %`;

/** What parameters that vary make of the measures, in words and in figures; null where nothing is asked of them. */
export function tolerated(
  project: Project,
  study: Study,
  { moved }: Plan,
  solved: readonly SolvedPoint[],
): { words: string[]; tolerance: ToldTolerance } | null {
  if (!study.goals?.length && !study.moves.some(variesAbout)) return null;
  const { task, tell } = askTolerance(project, study, moved, solved);
  const tolerance = tell(toleranceOf(task));
  const { figures, kept, goals, centre } = tolerance;
  const words = figures.flatMap(({ measure, unit, spread, fewest }) => {
    const text = (v: number, digits?: number): string => valueText(v, unit, digits);
    if (!spread) return [`${measure}: fewer than ${fewest} points have it, nothing is foretold`];
    const { mean, deviation, worst, checked, error } = spread;
    const errs = checked ? `${text(checked.error, 2)} at ${checked.points} points kept for it` : text(error, 2);
    return [
      `${measure}: ${text(mean)} ± ${text(deviation, 2)}, worst ${text(worst[0].value)} and ${text(worst[1].value)}; the model errs by ${errs}`,
    ];
  });
  if (kept) words.push(`yield ${percent(kept.share)} (${percent(kept.least)} to ${percent(kept.most)} if the models err by their error)`);
  else if (goals.length) words.push('no yield: a goal is of a measure that too few points have');
  if (centre) words.push(`yield ${percent(centre.kept.share)} with ${pointText(centre.values, moved.filter((m) => m.parameter in centre.values))}`); // prettier-ignore
  return { words, tolerance };
}

/** What measures come to on ever finer meshes, in words, where the mesh is what moves. */
export function limited(measures: readonly string[], { moved }: Plan, solved: readonly SolvedPoint[]): string[] {
  const parameter = meshMoved(moved);
  if (!parameter) return [];
  return measures.flatMap((measure) => {
    const { limit, sizes } = meshLimit(parameter, measure, solved);
    if (!limit) return [];
    const unit = solved.flatMap((s) => s.reads.filter((r) => r.name === measure && r.value !== null))[0].unit;
    const within = sizes.map((h, i) => `${(1 / h).toPrecision(3)} within ${valueText(limit.errors[i], unit, 2)}`).join(', ');
    return [
      `${measure} comes to ${valueText(limit.value, unit, 6)} by order ${limit.order.toFixed(1)}${limit.found ? '' : ', which is taken'}; ${parameter} ${within}`,
    ];
  });
}
