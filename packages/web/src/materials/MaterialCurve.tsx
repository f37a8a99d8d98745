import type { MaterialEntry } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { curvesOf, materialCurves } from '@jadebell/core/materials';
import { Box } from '@mui/material';
import { useMemo, useState } from 'react';
import { Lines } from '../charts/Lines.tsx';
import { traceStyle } from '../charts/traces.ts';
import { Stops } from '../kit/Stops.tsx';
import { useDark } from '../ui/useDark.ts';

const c0 = 299792458;

/** What a material does over frequency, or over wavelength for an optical one. */
export function MaterialCurve({ material }: { material: MaterialEntry }) {
  const dark = useDark();
  const kinds = curvesOf(material);
  const [chosen, setChosen] = useState(0);
  const optical = !!material.range && material.range[1] > 1e13;
  const kind = kinds[Math.min(chosen, kinds.length - 1)];
  const data = useMemo(() => {
    if (!kind) return null;
    const [low, high] =
      material.range ?? (material.kind === 'conductor' ? [1e8, 1e11] : [(material.atFrequency ?? 1e9) / 10, (material.atFrequency ?? 1e9) * 10]);
    const f = Array.from({ length: 160 }, (_, i) => low * (high / low) ** (i / 159));
    const points = f.map((v) => ({ x: optical ? c0 / v : v, y: materialCurves[kind].at(material, v) }));
    return points.sort((a, b) => a.x - b.x);
  }, [material, kind, optical]);
  if (!data || !kind) return null;
  return (
    <>
      {kinds.length > 1 && (
        <Box sx={{ my: 0.75 }}>
          <Stops
            label="Curve"
            value={kind}
            options={kinds.map((k) => ({ value: k, label: materialCurves[k].label }))}
            onChange={(k) => setChosen(kinds.indexOf(k))}
          />
        </Box>
      )}
      <div style={{ height: 200 }}>
        <Lines
          x={{ label: optical ? 'vacuum wavelength' : 'frequency', unit: optical ? 'length' : 'frequency', values: data.map((p) => p.x) }}
          y={{ label: materialCurves[kind].label }}
          traces={[{ name: material.name, color: traceStyle(1, dark).color, values: data.map((p) => p.y) }]}
        />
      </div>
      {material.range && (
        <p className="quiet">
          given from {optical ? formatSI(c0 / material.range[1], 'length', 3) : formatSI(material.range[0], 'frequency', 3)} to{' '}
          {optical ? formatSI(c0 / material.range[0], 'length', 3) : formatSI(material.range[1], 'frequency', 3)}
        </p>
      )}
      {!material.dispersion && material.kind === 'dielectric' && (
        <p className="quiet">
          {material.lossTangent ? 'Solved as the causal medium whose loss tangent is level over the band.' : 'Constant over frequency.'}
        </p>
      )}
    </>
  );
}
