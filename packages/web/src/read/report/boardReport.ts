import type { Run } from '../../api/types.ts';
import { getJson } from '../../api/client.ts';
import { projectSchema } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { evidenceRows } from '@jadebell/core/reading';
import { cardCanvas } from '../../charts/cardPicture.ts';
import { download } from '../../ui/download.ts';
import type { ShownRun } from '../../lens/shown.ts';
import { parameterText } from '../../lens/shown.ts';

const escaped = (t: string): string => t.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');
const table = (head: readonly string[], rows: readonly (readonly string[])[]): string =>
  `<table><thead><tr>${head.map((h) => `<th>${escaped(h)}</th>`).join('')}</tr></thead><tbody>${rows.map((r) => `<tr>${r.map((c) => `<td>${escaped(c)}</td>`).join('')}</tr>`).join('')}</tbody></table>`;

const style = `body{font:14px/1.45 system-ui,sans-serif;color:#1d2a26;max-width:1100px;margin:32px auto;padding:0 20px}
h1{font-size:22px;margin:0}h2{font-size:16px;margin:28px 0 8px}h3{font-size:14px;margin:0 0 6px}
figure{margin:0 0 18px;break-inside:avoid;border:1px solid #d9ddd6;border-radius:6px;padding:8px}
figure img{max-width:100%;height:auto;display:block}
.cards{display:grid;grid-template-columns:1fr 1fr;gap:14px}
table{border-collapse:collapse;font-variant-numeric:tabular-nums}th,td{text-align:left;padding:2px 14px 2px 0;border-bottom:1px solid #d9ddd6}
p{margin:4px 0}@media print{.cards{grid-template-columns:1fr 1fr}body{margin:0}}`;

/** The open board as one HTML file that needs nothing else: pictures of its cards, settings, the runs' parameters and evidence. */
export async function boardReport(name: string, run: Run, shown: readonly ShownRun[]): Promise<{ text: string; bad: boolean }> {
  try {
    const solved = await getJson(`/runs/${run.id}/document`, projectSchema);
    const figures: string[] = [];
    for (const card of document.querySelectorAll<HTMLElement>('.board .card')) {
      const title = card.getAttribute('aria-label') ?? '';
      const about = card.dataset.about ?? '';
      const body = card.querySelector<HTMLElement>(':scope > .body');
      if (!body) continue;
      const picture = (await cardCanvas(body, about ? `${title}: ${about}` : title)).toDataURL('image/png');
      figures.push(`<figure><img src="${picture}" alt="${escaped(`${title}: ${about}`)}"></figure>`);
    }
    const names = [...new Set(shown.flatMap((s) => s.run.parameters.map((g) => g.name)))];
    const { solve } = solved;
    const html = [
      `<!doctype html><html lang="en"><meta charset="utf-8"><title>${escaped(`${solved.title}: ${name}`)}</title><style>${style}</style>`,
      `<h1>${escaped(solved.title)}</h1><p>${escaped(name)}, ${escaped(shown.map((s) => s.label).join(', '))}, ${new Date().toISOString().slice(0, 10)}</p>`,
      solved.note ? `<p>${escaped(solved.note)}</p>` : '',
      `<h2>Board</h2><div class="cards">${figures.join('\n')}</div>`,
      `<h2>Parameters</h2>${
        names.length
          ? table(
              ['parameter', ...shown.map((s) => s.label)],
              names.map((n) => [n, ...shown.map((s) => parameterText(s.run, n))]),
            )
          : '<p>The model has no parameters.</p>'
      }`,
      `<h2>Settings</h2>${table(
        ['what', 'value'],
        [
          ['solver', `${run.meta!.solver}, core ${run.meta!.coreVersion}`],
          ['band', `${solve.from} to ${solve.to}, ${solve.points} points`],
          ['accuracy', solve.accuracy],
          ['recorded at', run.meta!.recordAt.map((f) => formatSI(f, 'frequency')).join(', ') || 'nothing'],
          ['ports', solved.ports.map((p) => p.name).join(', ') || 'none'],
          ['boundaries', Object.entries(solved.boundaries).map(([side, kind]) => `${side} ${kind}`).join(', ')], // prettier-ignore
        ],
      )}`,
      `<h2>Evidence</h2>${table(['what', 'value'], evidenceRows(run.meta!))}`,
      '</html>\n',
    ].join('\n');
    const stem = `${solved.title}-${name}`.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-');
    download(`${stem}-report.html`, html, 'text/html');
    return { text: 'The report is written.', bad: false };
  } catch (error) {
    return { text: `The report could not be written: ${(error as Error).message}`, bad: true };
  }
}
