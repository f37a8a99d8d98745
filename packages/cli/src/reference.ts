import { portKinds, recorderKinds, type SentencePart, shapeGroups, shapeOf, shapes } from '@jadebell/core/document';
import { formulas } from '@jadebell/core/formulas';
import { quantities } from '@jadebell/core/reading';
import { library, materialGroups, materialSummary } from '@jadebell/core/materials';
import { starterGroups, starters } from '@jadebell/core/starters';

const part = (p: SentencePart): string => {
  if (typeof p === 'string') return p;
  if ('name' in p) return '**name**';
  if ('material' in p) return '`material`';
  if ('choice' in p) return `\`${p.choice}\` (${p.options.map((o) => o.value).join(', ')})`;
  if ('ref' in p) return `\`${p.ref}\``;
  if ('refs' in p) return `\`${p.refs}\``;
  if ('face' in p) return `\`${p.face}\``;
  if ('list' in p) return `\`${p.list}\``;
  if ('text' in p) return `\`${p.text}\``;
  if ('part' in p) return `\`${p.part}\``;
  if ('conductor' in p) return '';
  return `\`${p.chip}\``;
};
const cell = (text: string): string => text.replaceAll('|', '\\|');

/** The reference of kinds of lines, ports and recorders, quantities, design functions, materials and starters, as Markdown from the definitions themselves. */
export function reference(): string {
  const out = [
    '# Reference',
    '',
    'Made by `npm run reference` from the definitions that the program runs on; a test holds it to them.',
    '',
    '## Lines',
    '',
    'Each kind as its sentence reads in the ledger, with the keys of the project file. All lines may also have `muted`, `note` and',
    '`in` (the name of a frame). `material` is optional where the line takes that of its first input.',
    '',
  ];
  for (const group of shapeGroups) {
    out.push(`### ${group}`, '', '| kind | what it is | sentence |', '| --- | --- | --- |');
    for (const s of shapes.filter((x) => x.group === group)) {
      const fresh = s.fresh('name');
      out.push(`| \`${s.kind}\` | ${cell(s.about)} | ${cell(shapeOf(fresh).sentence(fresh).map(part).join(' '))} |`); // prettier-ignore
    }
    out.push('');
  }
  const around = {
    at: () => '0 mm',
    lines: ['line'],
    wires: ['wire', 'wire2'],
    pair: ['line', 'line2'] as [string, string],
    face: 'line.zmin',
    solids: true,
  };
  const sentence = (parts: readonly SentencePart[]): string => cell(parts.map(part).join(' '));
  out.push('## Ports, loads and waves', '', 'All may also have `note`. The solvers that take each stand behind it.', '');
  out.push('| kind | what it is | sentence | solvers |', '| --- | --- | --- | --- |');
  for (const k of portKinds) out.push(`| \`${k.kind}\` | ${k.role}: ${cell(k.title)} | ${sentence(k.words(k.make('name', around) as never))} | ${k.solvers.join(', ')} |`); // prettier-ignore
  out.push('', '## Recorders', '', 'Those at frequencies may have `frequencies` of their own, a row each.', '');
  out.push('| kind | what it records | sentence | solvers |', '| --- | --- | --- | --- |');
  for (const k of recorderKinds) out.push(`| \`${k.kind}\` | ${cell(k.title)} | ${sentence(k.words(k.make('name', around) as never))} | ${k.solvers.join(', ')} |`); // prettier-ignore
  out.push('', '## Quantities of curves', '', 'What a trace of a card may be of, by the name in `quantity`.', '');
  for (const [key, q] of Object.entries(quantities)) out.push(`- \`${key}\`: ${q.title.toLowerCase()}${q.unit ? `, ${q.unit}` : ''}, over ${q.over}`);
  out.push('');
  out.push(
    '## Design functions',
    '',
    'Arguments in brackets may be left out. Outside its range a function still gives a value, with a warning where it can tell.',
    '',
  );
  for (const family of new Set(formulas.map((f) => f.family))) {
    out.push(`### ${family}`, '');
    for (const f of formulas.filter((x) => x.family === family)) {
      const args = f.args.map((a) => (a.otherwise === undefined ? a.name : `[${a.name}]`)).join(', ');
      out.push(
        `- \`${f.name}(${args})\`: ${f.about.toLowerCase()}. ${f.args.map((a) => `${a.name}: ${a.about}`).join('; ')}.`,
        `  Source: ${f.source}. Valid: ${f.range}.`,
      );
    }
    out.push('');
  }
  out.push('## Materials', '');
  for (const group of materialGroups) {
    out.push(`### ${group}`, '');
    for (const m of library.filter((x) => x.group === group)) out.push(`- ${m.name}: ${materialSummary(m)}${m.source ? `. ${m.source}` : ''}`);
    out.push('');
  }
  out.push('## Starters', '');
  for (const group of starterGroups) {
    out.push(`### ${group}`, '');
    for (const s of starters.filter((x) => x.group === group))
      out.push(`- **${s.title}**: ${s.about.toLowerCase()}. Asks for ${s.inputs.map((i) => i.label).join(', ')}.`);
    out.push('');
  }
  return `${out.join('\n').trimEnd()}\n`;
}
