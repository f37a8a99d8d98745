import { Delete, Download, Folder } from '../kit/icons.tsx';
import { useState } from 'react';
import { Link } from 'react-router';
import { sendJson } from '../api/client.ts';
import { useProjects } from '../api/hooks.ts';
import type { ProjectSummary } from '../api/types.ts';
import { TypedField } from '../kit/Field.tsx';
import { IconTool } from '../kit/IconTool.tsx';
import { ResultSketch } from './ResultSketch.tsx';

/** A day, with its year where that is not this one. */
function dayOf(time: string): string {
  const date = new Date(time);
  const year = date.getFullYear() === new Date().getFullYear() ? undefined : 'numeric';
  return date.toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year });
}

interface Props {
  project: ProjectSummary;
  onRemove(): void;
  onFault(text: string): void;
}

/** A project on the shelf: its model, what its newest run found, and what can be done with it. */
export function ShelfCard({ project: p, onRemove, onFault }: Props) {
  const { mutate } = useProjects();
  const [moving, setMoving] = useState(false);
  const move = async (folder: string): Promise<void> => {
    setMoving(false);
    try {
      await sendJson('PUT', `/projects/${p.id}/folder`, { folder });
    } catch (e) {
      onFault((e as Error).message);
    }
    void mutate();
  };
  return (
    <article className="shelf-card">
      <Link to={`/project/${p.id}/shape`} aria-label={p.title}>
        <img className="picture" alt="" src={`/api/projects/${p.id}/picture.svg?r=${p.revision}`} />
        <div className="about">
          <h3>{p.title}</h3>
          <p className="quiet">{p.note}</p>
        </div>
      </Link>
      {p.runs > 0 && <ResultSketch project={p.id} runs={p.runs} title={p.title} />}
      <div className="foot">
        {moving ? (
          <TypedField
            label={`Folder of ${p.title}`}
            value={p.folder}
            placeholder="no folder"
            autoFocus
            maxLength={60}
            onChange={(t) => void move(t)}
            onDone={() => setMoving(false)}
          />
        ) : (
          <>
            {p.runs === 0 ? 'no run yet' : p.runs === 1 ? '1 run' : `${p.runs} runs`} · changed {dayOf(p.updatedAt)}
          </>
        )}
        <span className="grow" />
        <IconTool size={18} label={`Folder of ${p.title}`} hint="Put into a folder" icon={<Folder />} onClick={() => setMoving(!moving)} />
        <IconTool size={18} label={`Export ${p.title}`} hint="Export as JSON" icon={<Download />} href={`/api/projects/${p.id}/export`} />
        <IconTool size={18} label={`Remove ${p.title}`} hint="Remove" icon={<Delete />} onClick={onRemove} />
      </div>
    </article>
  );
}
