import ChevronLeft from '@mui/icons-material/ChevronLeft';
import ChevronRight from '@mui/icons-material/ChevronRight';
import Pause from '@mui/icons-material/Pause';
import PlayArrow from '@mui/icons-material/PlayArrow';
import { IconButton } from '@mui/material';
import { compileValue } from '@jadebell/core/expressions';
import { formatSI } from '@jadebell/core/expressions/format';
import { useEffect, useState } from 'react';
import { useLens } from './lens.ts';
import { nearestStop } from './usePlay.ts';

const small = { padding: '2px', '& svg': { fontSize: 18 } };

/** The frequency that all cards look at: slid, stepped, typed, or played. */
export function FrequencyLens({ stops }: { stops: readonly number[] }) {
  const { frequency, playing, set } = useLens();
  const at = nearestStop(stops, frequency);
  const value = frequency ?? stops[at];
  const [text, setText] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  useEffect(() => {
    setText(formatSI(value, 'frequency', 6));
    setFault(null);
  }, [value]);
  const commit = (): void => {
    if (text === formatSI(value, 'frequency', 6)) return;
    const si = compileValue(text, 'frequency');
    if (typeof si === 'string') setFault(si);
    else if (!(si > 0)) setFault('A frequency is above zero.');
    else set({ frequency: si, playing: null });
  };
  const go = (n: number): void => set({ frequency: stops[Math.max(0, Math.min(stops.length - 1, n))], playing: null });
  return (
    <div className="group" role="group" aria-label="Frequency of the lens">
      <span className="quiet">frequency</span>
      <IconButton aria-label="Frequency before" disabled={at === 0} onClick={() => go(at - 1)} sx={small}>
        <ChevronLeft />
      </IconButton>
      <input
        type="range"
        aria-label="Frequency"
        aria-valuetext={formatSI(value, 'frequency')}
        min={0}
        max={stops.length - 1}
        step={1}
        value={at}
        style={{ width: 110 }}
        onChange={(e) => go(Number(e.target.value))}
      />
      <IconButton aria-label="Frequency after" disabled={at === stops.length - 1} onClick={() => go(at + 1)} sx={small}>
        <ChevronRight />
      </IconButton>
      <input
        className="chip mono"
        style={{ width: 96 }}
        aria-label="Frequency typed"
        aria-invalid={fault !== null}
        value={text}
        title={fault ?? 'Any frequency; fields show the recorded one that is nearest'}
        onChange={(e) => setText(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => e.key === 'Enter' && commit()}
      />
      {stops.length > 1 && (
        <IconButton
          aria-label={playing === 'frequency' ? 'Stop playing the frequency' : 'Play the frequency'}
          onClick={() => set({ playing: playing === 'frequency' ? null : 'frequency' })}
          sx={small}
        >
          {playing === 'frequency' ? <Pause /> : <PlayArrow />}
        </IconButton>
      )}
      {fault && (
        <span role="alert" className="bad">
          {fault}
        </span>
      )}
    </div>
  );
}

/** The phase at which instants of fields are looked at. */
export function PhaseLens() {
  const { phase, playing, speed, set } = useLens();
  const degrees = Math.round((180 * phase) / Math.PI);
  return (
    <div className="group" role="group" aria-label="Phase of the lens">
      <span className="quiet">phase</span>
      <input
        type="range"
        aria-label="Phase"
        aria-valuetext={`${degrees}°`}
        min={0}
        max={359}
        step={1}
        value={degrees % 360}
        style={{ width: 80 }}
        onChange={(e) => set({ phase: (Number(e.target.value) * Math.PI) / 180, playing: null })}
      />
      <span className="mono" style={{ width: 34 }}>
        {degrees % 360}°
      </span>
      <IconButton
        aria-label={playing === 'phase' ? 'Stop playing the phase' : 'Play the phase'}
        onClick={() => set({ playing: playing === 'phase' ? null : 'phase' })}
        sx={small}
      >
        {playing === 'phase' ? <Pause /> : <PlayArrow />}
      </IconButton>
      {playing && (
        <label>
          <span className="quiet">speed</span>
          <select className="plain-select" aria-label="Speed of play" value={speed} onChange={(e) => set({ speed: Number(e.target.value) })}>
            {[0.1, 0.25, 0.5, 1, 2].map((v) => (
              <option key={v} value={v}>
                {v} /s
              </option>
            ))}
          </select>
        </label>
      )}
    </div>
  );
}
