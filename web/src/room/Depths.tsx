// How deep the room is through the seat, each way that one can face.
import { scaleLinear } from "d3-scale";

import type { Schemas } from "../api/client";
import { formatLength, type UnitSystem } from "../units/length";
import { Section } from "../ui/Section";

export function Depths({ ground, units }: { ground: Schemas["Ground"]; units: UnitSystem }) {
  const longest = Math.max(...ground.depths.map((d) => d.depth_m));
  const part = scaleLinear([0, longest], [0, 100]);
  return (
    <Section title="How deep the room is, each way you can face">
      <ul className="grid gap-0.5 text-sm">
        {ground.depths.map((depth) => (
          <li
            key={depth.facing}
            aria-current={depth.now || undefined}
            className="grid grid-cols-[9.5rem_minmax(0,1fr)_9rem] items-center gap-2 aria-[current]:font-bold"
          >
            <span className="truncate">
              {depth.now ? "✓ " : ""}
              {depth.facing}
            </span>
            <span className="bg-line block h-2.5 rounded-sm">
              <span
                className={`block h-full rounded-sm ${depth.now ? "bg-ink" : "bg-faint"}`}
                style={{ width: `${part(depth.depth_m)}%` }}
              />
            </span>
            <span className="whitespace-nowrap">
              {formatLength(depth.depth_m, units)}
              {depth.diagonal && (
                <span className="text-faint font-normal">
                  {" "}
                  {depth.gain_m >= 0 ? "+" : "−"}
                  {formatLength(Math.abs(depth.gain_m), units)}
                </span>
              )}
            </span>
          </li>
        ))}
      </ul>
      <p className="text-faint mt-1 text-xs">
        Wall to wall. After the sign: what the diagonal gains or loses against the deepest way square to a wall.
      </p>
    </Section>
  );
}
