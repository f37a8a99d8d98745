import { ChevronLeft, ChevronRight, Pause, PlayArrow } from '../kit/icons.tsx';

import { compileValue } from '@jadebell/core/expressions';
import { formatSI } from '@jadebell/core/expressions/format';
import { useLens } from './lens.ts';
import { nearestStop } from './usePlay.ts';
import { Choice } from '../kit/Choice.tsx';
import { TypedField } from '../kit/Field.tsx';
import { Range } from '../kit/Range.tsx';
import { IconTool } from '../kit/IconTool.tsx';

/** The frequency that all cards look at: slid, stepped, typed, or played. */
export function FrequencyLens({ stops }: { stops: readonly number[] }) {
  const { frequency, playing, set } = useLens();
  const at = nearestStop(stops, frequency);
  const value = frequency ?? stops[at];
  const go = (n: number): void => set({ frequency: stops[Math.max(0, Math.min(stops.length - 1, n))], playing: null });
  return (
    <div className="group" role="group" aria-label="Frequency of the lens">
      <span className="quiet">frequency</span>
      <IconTool label="Frequency before" icon={<ChevronLeft />} size={18} disabled={at === 0} onClick={() => go(at - 1)} />
      <Range label="Frequency" told={formatSI(value, 'frequency')} min={0} max={stops.length - 1} value={at} width={110} onChange={go} />
      <IconTool label="Frequency after" icon={<ChevronRight />} size={18} disabled={at === stops.length - 1} onClick={() => go(at + 1)} />
      <TypedField
        mono
        width={96}
        label="Frequency typed"
        value={formatSI(value, 'frequency', 6)}
        hint="Any frequency; fields show the recorded one that is nearest"
        check={(t) => {
          const si = compileValue(t, 'frequency');
          return typeof si === 'string' ? si : si > 0 ? null : 'A frequency is above zero.';
        }}
        onChange={(t) => set({ frequency: compileValue(t, 'frequency') as number, playing: null })}
      />
      {stops.length > 1 && (
        <IconTool
          label={playing === 'frequency' ? 'Stop playing the frequency' : 'Play the frequency'}
          icon={playing === 'frequency' ? <Pause /> : <PlayArrow />}
          size={18}
          onClick={() => set({ playing: playing === 'frequency' ? null : 'frequency' })}
        />
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
      <Range
        label="Phase"
        told={`${degrees}°`}
        min={0}
        max={359}
        value={degrees % 360}
        width={80}
        onChange={(v) => set({ phase: (v * Math.PI) / 180, playing: null })}
      />
      <span className="mono" style={{ width: 34 }}>
        {degrees % 360}°
      </span>
      <IconTool
        label={playing === 'phase' ? 'Stop playing the phase' : 'Play the phase'}
        icon={playing === 'phase' ? <Pause /> : <PlayArrow />}
        size={18}
        onClick={() => set({ playing: playing === 'phase' ? null : 'phase' })}
      />
      {playing && (
        <span className="group">
          <span className="quiet">speed</span>
          <Choice
            label="Speed of play"
            value={speed}
            options={[0.1, 0.25, 0.5, 1, 2].map((v) => ({ value: v, label: `${v} /s` }))}
            onChange={(v) => set({ speed: v })}
          />
        </span>
      )}
    </div>
  );
}
