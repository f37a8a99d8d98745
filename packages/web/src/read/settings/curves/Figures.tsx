import { Choice } from '../../../kit/Choice.tsx';
import { Tick } from '../../../kit/Tick.tsx';
import { Part, Quantity, Row } from '../Fields.tsx';
import { measureOver, type CurvesProps } from './common.tsx';

/** Bandwidth at a level, and statistics. */
export function Figures({ card, change }: CurvesProps) {
  const measure = measureOver(card);
  return (
    <Part title="Figures">
      <Row label="bandwidth">
        <Tick
          label="tell where it is"
          value={!!card.bandwidth}
          onChange={(on) => change({ bandwidth: on ? { level: -10, side: 'below' } : undefined })}
        />
        {card.bandwidth && (
          <>
            <Choice
              label="Side of the level"
              value={card.bandwidth.side}
              options={[
                { value: 'below', label: 'below' },
                { value: 'above', label: 'above' },
              ]}
              onChange={(side) => change({ bandwidth: { ...card.bandwidth!, side } })}
            />
            <Quantity
              label="Level of the bandwidth"
              width={56}
              value={card.bandwidth.level}
              measure="number"
              onChange={(level) => change({ bandwidth: { ...card.bandwidth!, level: level ?? 0 } })}
            />
          </>
        )}
      </Row>
      <Row label="statistics">
        <Tick label="min, max, mean" value={!!card.statistics} onChange={(on) => change({ statistics: on ? {} : undefined })} />
        {card.statistics && (
          <>
            <Quantity
              label="Statistics from"
              optional
              placeholder="start"
              value={card.statistics.from}
              measure={measure}
              onChange={(from) => change({ statistics: { ...card.statistics, from } })}
            />
            to
            <Quantity
              label="Statistics to"
              optional
              placeholder="end"
              value={card.statistics.to}
              measure={measure}
              onChange={(to) => change({ statistics: { ...card.statistics, to } })}
            />
          </>
        )}
      </Row>
    </Part>
  );
}
