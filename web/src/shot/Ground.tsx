// Under the chart: zones of perspective, the lenses at hand, the room's end, the axes.
import type { ChartData } from "../api/client";
import { fixed, formatLength, type UnitSystem } from "../units/length";
import { focalTicks, type Frame, type Scale } from "./scale";

export interface Plotted {
  chart: ChartData;
  scale: Scale;
  frame: Frame;
}

export function Ground(props: Plotted & { units: UnitSystem }) {
  const { chart, scale, frame } = props;
  const height = frame.bottom - frame.top;
  const end = Math.min(scale.x(chart.room_m), frame.right);
  return (
    <g>
      <defs>
        <pattern
          id="chart-hatch"
          width="7"
          height="7"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line x1="0" y1="0" x2="0" y2="7" className="chart-hatch" />
        </pattern>
      </defs>
      <Zones {...props} />
      {chart.lenses.map((lens) => {
        const [top, bottom] = [scale.y(lens.focal_max_mm), scale.y(lens.focal_min_mm)];
        const thin = bottom - top < 4;
        return (
          <rect
            key={lens.id}
            x={frame.left}
            y={thin ? (top + bottom) / 2 - 2 : top}
            width={frame.right - frame.left}
            height={thin ? 4 : bottom - top}
            className={lens.in_use ? "chart-lens chart-lens-used" : "chart-lens"}
          >
            <title>{lens.label}</title>
          </rect>
        );
      })}
      {end < frame.right - 1 && (
        <rect x={end} y={frame.top} width={frame.right - end} height={height} fill="url(#chart-hatch)" />
      )}
      <line x1={end} x2={end} y1={frame.top} y2={frame.bottom} className="chart-wall">
        <title>{`The room ends here: ${chart.ends_at}`}</title>
      </line>
      <Axes {...props} />
    </g>
  );
}

/** How a face looks from there. */
function Zones({ chart, scale, frame }: Plotted) {
  return chart.zones.map((zone, index) => {
    const [from, to] = [scale.x(zone.from_m), Math.min(scale.x(zone.to_m), frame.right)];
    return (
      <g key={zone.name}>
        <rect
          x={from}
          y={frame.top}
          width={Math.max(to - from, 0)}
          height={frame.bottom - frame.top}
          className={index % 2 === 0 ? "chart-zone" : "chart-zone chart-zone-other"}
        />
        {to - from > zone.name.length * 6.5 && (
          <text x={(from + to) / 2} y={frame.top - 6} textAnchor="middle" className="chart-note">
            {zone.name}
          </text>
        )}
      </g>
    );
  });
}

function Axes({ chart, scale, frame, units }: Plotted & { units: UnitSystem }) {
  const many = Math.floor((frame.right - frame.left) / 62);
  return (
    <>
      {scale.x.ticks(many).map((distance) => (
        <g key={distance}>
          <line
            x1={scale.x(distance)}
            x2={scale.x(distance)}
            y1={frame.bottom}
            y2={frame.bottom + 4}
            className="chart-tick"
          />
          <text x={scale.x(distance)} y={frame.bottom + 16} textAnchor="middle">
            {formatLength(distance, units)}
          </text>
        </g>
      ))}
      {focalTicks(chart.focal_length_mm, scale, 20).map((focal) => (
        <g key={focal}>
          <line
            x1={frame.left - 4}
            x2={frame.left}
            y1={scale.y(focal)}
            y2={scale.y(focal)}
            className="chart-tick"
          />
          <text x={frame.left - 7} y={scale.y(focal) + 4} textAnchor="end">
            {fixed(focal, 0)}
          </text>
          <text x={frame.right + 7} y={scale.y(focal) + 4} className="chart-note">
            {fixed(focal * chart.crop_factor, 0)}
          </text>
        </g>
      ))}
      <text x={frame.left - 7} y={frame.top - 6} textAnchor="end" className="chart-note">
        mm
      </text>
      <text x={frame.right + 7} y={frame.top - 6} className="chart-note">
        full frame
      </text>
    </>
  );
}
