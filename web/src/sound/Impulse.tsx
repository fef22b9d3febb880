// The picture of a clap: what arrives when and how loud, from which surface, and how each band dies away.
import { useQuery } from "@tanstack/react-query";
import { scaleLinear } from "d3-scale";

import { api, type Plan, type Schemas } from "../api/client";
import { fixed } from "../units/length";
import { Section } from "../ui/Section";
import { Table } from "../ui/Table";
import { Decays } from "./Decays";
import { Grid } from "./Grid";
import { PLOT, y } from "./plot";

type Seen = Schemas["ImpulseSeen"];

/** Reflections named in the picture; the table tells all. */
const NAMED = 6;

interface Props {
  plan: Plan;
  variant: Schemas["Variant"];
  title: string;
}

export default function Impulse({ plan, variant, title }: Props) {
  const { data: seen } = useQuery({
    queryKey: ["impulse", plan, variant],
    queryFn: () => api.impulse(plan, variant),
    staleTime: Infinity,
    gcTime: 60_000,
    placeholderData: (before: Seen | undefined) => before,
    retry: false,
  });
  if (!seen) return null;
  return (
    <Section title={`Impulse response, ${title}`}>
      <p className="text-faint text-xs">
        A clap at your mouth: level against the direct sound.
        {!seen.is_box && " This room is no rectangle: single reflections, then a statistical tail."}
      </p>
      <Picture seen={seen} />
      <Decays seen={seen} />
      <Table>
        <thead>
          <tr>
            <th>First reflections from</th>
            <th>Later</th>
            <th>Softer</th>
          </tr>
        </thead>
        <tbody>
          {seen.reflections.map((r) => (
            <tr key={r.words + String(r.delay_ms)}>
              <td>{r.words}</td>
              <td>{fixed(r.delay_ms, 1)} ms</td>
              <td>{fixed(-r.level_db, 1)} dB</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Section>
  );
}

function Picture({ seen }: { seen: Seen }) {
  const x = scaleLinear([seen.from_ms, seen.to_ms], [PLOT.left, PLOT.right]);
  const step = (seen.to_ms - seen.from_ms) / seen.levels_db.length;
  const lines = seen.levels_db
    .map((db, index) =>
      db == null
        ? ""
        : `M${fixed(x(seen.from_ms + (index + 0.5) * step), 1)} ${y(PLOT.lowestDb)}V${fixed(y(Math.min(db, 0)), 1)}`,
    )
    .join("");
  const named = withRoom(seen).map((r) => ({ ...r, at: x(r.delay_ms) }));
  return (
    <svg
      className="chart block h-auto w-full"
      viewBox={`0 0 ${PLOT.width} ${PLOT.height}`}
      role="img"
      aria-label={`Impulse response: ${String(seen.reflections.length)} first reflections within ${fixed(seen.to_ms, 0)} ms`}
    >
      <Grid
        left={PLOT.left}
        right={PLOT.right}
        lines={PLOT.levels}
        under={[0, 20, 40, 60, 80, 100].map((ms) => [x(ms), ms === 0 ? "0 ms" : String(ms)])}
        foot={PLOT.height - 8}
      />
      <path d={lines} className="impulse-line" />
      {named.map((r) => (
        <g key={r.words}>
          <line x1={r.at} x2={r.at} y1={y(r.level_db)} y2={PLOT.top - 2} className="impulse-hit" />
          <text x={r.at + 2} y={PLOT.top - 4} className="impulse-name">
            {r.words}
          </text>
        </g>
      ))}
    </svg>
  );
}

/** The loudest reflections whose names find room beside each other, earliest first. */
function withRoom(seen: Seen): Seen["reflections"] {
  const perMs = (PLOT.right - PLOT.left) / (seen.to_ms - seen.from_ms);
  const loudest = [...seen.reflections].sort((a, b) => b.level_db - a.level_db).slice(0, NAMED);
  const kept: Seen["reflections"] = [];
  for (const one of loudest) {
    const wide = (r: Seen["reflections"][number]) => (6.2 * r.words.length + 10) / perMs;
    const free = kept.every(
      (other) => one.delay_ms + wide(one) < other.delay_ms || other.delay_ms + wide(other) < one.delay_ms,
    );
    if (free && one.delay_ms < seen.to_ms) kept.push(one);
  }
  return kept.sort((a, b) => a.delay_ms - b.delay_ms);
}
