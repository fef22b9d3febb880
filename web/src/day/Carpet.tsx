// A year at a glance: days across, hours down; sun where it disturbs, light that holds, noise and golden hours, each by a pattern of
// its own as well as by colour. A tap takes the day up.
import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";

import type { Plan, Schemas } from "../api/client";
import { Section } from "../ui/Section";
import { Trouble, Waiting } from "../ui/states";
import { useWidth } from "../ui/useWidth";
import { yearOf } from "./asked";
import { LAYERS, onDay, pathOf, type Layer } from "./carpet";

const HIGH = 240;
const LEFT = 26;
const TOP = 14;
const FOOT = 4;
/** A month narrower than this has no room for its name, px. */
const NAMED_PX = 28;

interface Props {
  plan: Plan;
  date: string;
  onDate: (date: string) => void;
}

export function Carpet({ plan, date, onDate }: Props) {
  const year = Number(date.slice(0, 4));
  const found = useQuery(yearOf(plan, year));
  return (
    <Section title={`The year ${String(year)}`}>
      {found.isPending && <Waiting what="Following the sun through the year" />}
      {found.isError && <Trouble error={found.error} onRetry={() => void found.refetch()} />}
      {found.data && <Woven year={found.data} date={date} onDate={onDate} />}
    </Section>
  );
}

function Woven({
  year,
  date,
  onDate,
}: {
  year: Schemas["Year"];
  date: string;
  onDate: (date: string) => void;
}) {
  const { days, sentences } = year;
  const [over, setOver] = useState<number | null>(null);
  const id = useId();
  const [box, width] = useWidth(590);
  const dayWide = (width - LEFT - 2) / days.length;
  const y = (minute: number) => TOP + (HIGH * minute) / 1440;
  const at = days.findIndex((day) => day.date === date);
  const shown = days[over ?? at];
  const dayAt = (event: React.MouseEvent<SVGSVGElement>) => {
    const across = event.clientX - event.currentTarget.getBoundingClientRect().left;
    const index = Math.floor((across - LEFT) / dayWide);
    return days[index] ? index : null;
  };
  return (
    <div ref={box} className="grid gap-2">
      <p className="text-sm">{sentences.join(" ")}</p>
      <svg
        width={width}
        height={TOP + HIGH + FOOT}
        className="bg-paper outline-line block cursor-pointer rounded-lg outline -outline-offset-1"
        role="img"
        aria-label="The year: days across, hours down"
        onMouseMove={(event) => setOver(dayAt(event))}
        onMouseLeave={() => setOver(null)}
        onClick={(event) => {
          const day = days[dayAt(event) ?? -1];
          if (day) onDate(day.date);
        }}
      >
        <defs>
          {LAYERS.map((layer) => (
            <Pattern key={layer.key} id={`${id}-${layer.key}`} layer={layer} />
          ))}
        </defs>
        <g transform={`translate(${String(LEFT)} 0)`}>
          <rect y={TOP} width={days.length * dayWide} height={HIGH} className="carpet-night" />
          <path d={pathOf(days, (day) => day.up, dayWide, y)} className="carpet-day" />
          {LAYERS.map(({ key, spans }) => (
            <path key={key} d={pathOf(days, spans, dayWide, y)} fill={`url(#${id}-${key})`} />
          ))}
          {days.map((day, index) =>
            day.date.endsWith("-01") ? (
              <g key={day.date}>
                <line
                  x1={index * dayWide}
                  x2={index * dayWide}
                  y1={TOP - 4}
                  y2={TOP + HIGH}
                  className="stroke-ink"
                  strokeWidth="0.3"
                />
                <text x={index * dayWide + 2} y={TOP - 3} fontSize="10" className="fill-faint">
                  {new Date(`${day.date}T12:00:00Z`).toLocaleDateString("en-GB", {
                    month: 30 * dayWide < NAMED_PX ? "narrow" : "short",
                    timeZone: "UTC",
                  })}
                </text>
              </g>
            ) : null,
          )}
          {at >= 0 && (
            <rect
              x={at * dayWide - 0.4}
              y={TOP - 4}
              width={dayWide + 0.8}
              height={HIGH + 8}
              className="carpet-today"
            />
          )}
        </g>
        {[0, 4, 8, 12, 16, 20, 24].map((hour) => (
          <g key={hour}>
            <text x={LEFT - 4} y={y(hour * 60) + 3} fontSize="10" textAnchor="end" className="fill-faint">
              {hour}
            </text>
            <line
              x1={LEFT}
              x2={width - 2}
              y1={y(hour * 60)}
              y2={y(hour * 60)}
              className="stroke-ink"
              strokeWidth="0.25"
            />
          </g>
        ))}
      </svg>
      <ul className="flex flex-wrap gap-x-4 gap-y-1 text-xs">
        <Swatch name="night">
          <rect width="22" height="14" className="carpet-night" />
        </Swatch>
        <Swatch name="day">
          <rect width="22" height="14" className="carpet-day" />
        </Swatch>
        {LAYERS.map(({ key, name }) => (
          <Swatch key={key} name={name}>
            <rect width="22" height="14" className="carpet-day" />
            <rect width="22" height="14" fill={`url(#${id}-${key})`} />
          </Swatch>
        ))}
      </ul>
      <p className="min-h-10 text-sm" aria-live="off">
        {shown && onDay(shown)}
      </p>
    </div>
  );
}

function Swatch({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <li className="flex items-center gap-1.5">
      <svg width="22" height="14" className="border-line border" aria-hidden="true">
        {children}
      </svg>
      {name}
    </li>
  );
}

/** How a layer is told from the others without its colour. */
function Pattern({ id, layer: { key, mark } }: { id: string; layer: Layer }) {
  return (
    <pattern id={id} width="5" height="5" patternUnits="userSpaceOnUse">
      {mark.filled && <rect width="5" height="5" className={`carpet-${key} carpet-fill`} />}
      {mark.path && <path d={mark.path} className={`carpet-${key} carpet-line`} />}
    </pattern>
  );
}
