import { Box } from '@mui/material';
import { type ReactNode, useState } from 'react';
import { Tool } from '../kit/Tool.tsx';

interface Named {
  name: string;
  color: string;
  dash?: string;
}

/** A short piece of a line in its colour and dash. */
const Sample = ({ color, dash }: Named) => (
  <Box component="svg" aria-hidden width={20} height={4} sx={{ mr: 0.625, flex: 'none' }}>
    <line x1={0} x2={20} y1={2} y2={2} stroke={color} strokeWidth={2} strokeDasharray={dash} />
  </Box>
);

interface Props<T> {
  traces: readonly T[];
  /** The chart with the traces that are not switched off. */
  children(shown: readonly T[]): ReactNode;
}

/** A chart below the names of its traces; a name switches its trace off and on. */
export function WithLegend<T extends Named>({ traces, children }: Props<T>) {
  const [off, setOff] = useState<readonly string[]>([]);
  const shown = off.length ? traces.filter((t) => !off.includes(t.name)) : traces;
  const flip = (name: string): void => setOff((was) => (was.includes(name) ? was.filter((n) => n !== name) : [...was, name]));
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', height: '100%' }}>
      {traces.length > 0 && (
        <Box
          role="group"
          aria-label="Traces"
          sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 0.5, px: 0.25, maxHeight: '35%', overflow: 'auto' }}
        >
          {traces.map((t) => (
            <Tool
              key={t.name + t.dash}
              bare
              aria-pressed={!off.includes(t.name)}
              sx={{
                fontSize: 12,
                fontWeight: 400,
                '&[aria-pressed="true"]': { background: 'none' },
                '&[aria-pressed="false"]': { opacity: 0.5, textDecoration: 'line-through' },
              }}
              onClick={() => flip(t.name)}
            >
              <Sample {...t} /> {t.name}
            </Tool>
          ))}
        </Box>
      )}
      <Box sx={{ flex: 1, minHeight: 0 }}>{children(shown)}</Box>
    </Box>
  );
}
