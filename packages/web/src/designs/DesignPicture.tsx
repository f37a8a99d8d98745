import type { Project } from '@jadebell/core/document';
import { evaluateParameters } from '@jadebell/core/expressions';
import { formatSI } from '@jadebell/core/expressions/format';
import { TableBody, TableCell, TableRow } from '@mui/material';
import { lazy, Suspense, useMemo } from 'react';
import useSWR from 'swr';
import { Figures } from '../kit/Figures.tsx';
import { bodiesOf } from '../project/model.ts';
import { Message } from '../kit/Message.tsx';

const BodiesView = lazy(() => import('../space/BodiesView.tsx'));

/** A design as it will be built, with the dimensions that follow from what was asked. */
export function DesignPicture({ project, title }: { project: Project; title: string }) {
  const { data, error } = useSWR<Awaited<ReturnType<typeof bodiesOf>>, Error>(['design', JSON.stringify(project)], () => bodiesOf(project), {
    keepPreviousData: true,
  });
  const sizes = useMemo(() => {
    const { summary } = evaluateParameters(project);
    return project.parameters.flatMap(({ name, note }) =>
      summary[name] ? [{ name, note, text: formatSI(summary[name].si, summary[name].measure, 4) }] : [],
    );
  }, [project]);
  return (
    <>
      <div style={{ height: 230, marginTop: 10 }}>
        {error ? (
          <Message>{error.message}</Message>
        ) : data ? (
          <Suspense fallback={<p className="quiet">Drawing it …</p>}>
            <BodiesView bodies={data} label={`${title} as it will be built`} />
          </Suspense>
        ) : (
          <p className="quiet">Building it …</p>
        )}
      </div>
      <Figures>
        <TableBody>
          {sizes.map(({ name, note, text }) => (
            <TableRow key={name}>
              <TableCell>{name}</TableCell>
              <TableCell className="mono">{text}</TableCell>
              <TableCell className="quiet" style={{ whiteSpace: 'normal', textAlign: 'left' }}>
                {note}
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Figures>
    </>
  );
}
