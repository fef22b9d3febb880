// How each band of sound dies away.
import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";

import type { Schemas } from "../api/client";
import { fixed } from "../units/length";
import { Grid } from "./Grid";
import { hertz, PLOT, y } from "./plot";

export function Decays({ seen }: { seen: Schemas["ImpulseSeen"] }) {
  const end = Math.max(...seen.rt60_s) * 1.05;
  const x = scaleLinear([0, end], [PLOT.left, PLOT.right]);
  const path = (curve: number[]) =>
    line<number>(
      (_, i) => x(seen.decay_s[i] ?? 0),
      (db) => y(db),
    ).defined((db, i) => (seen.decay_s[i] ?? 0) <= end && db >= PLOT.lowestDb)(curve) ?? "";
  const key = PLOT.right - 66;
  return (
    <svg
      className="chart block h-auto w-full"
      viewBox={`0 0 ${PLOT.width} ${PLOT.height}`}
      role="img"
      aria-label={`Decay by band: ${seen.bands_hz.map((hz, i) => `${String(hz)} hertz ${fixed(seen.rt60_s[i] ?? 0, 2)} seconds`).join(", ")}`}
    >
      <Grid
        left={PLOT.left}
        right={PLOT.right}
        lines={PLOT.levels}
        under={[0, 0.25, 0.5, 0.75].map((part) => [x(end * part), part === 0 ? "0 s" : fixed(end * part, 2)])}
        foot={PLOT.height - 8}
      />
      {seen.decays_db.map((curve, band) => {
        const row = PLOT.top + 10 + 15 * band;
        return (
          <g key={seen.bands_hz[band]}>
            <path d={path(curve)} className={`decay decay-${String(band)}`} />
            <line x1={key} x2={key + 26} y1={row} y2={row} className={`decay decay-${String(band)}`} />
            <text x={key + 32} y={row + 4}>
              {hertz(seen.bands_hz[band] ?? 0)}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
