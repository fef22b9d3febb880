// How deep the room is through the seat, each way that one can face.
import { scaleLinear } from "d3-scale";

import type { Schemas } from "../api/client";
import { formatLength, type UnitSystem } from "../units/length";
import { Section } from "../ui/Section";

type Depth = Schemas["Ground"]["depths"][number];

/** Whoever turns round has the same depth: both ways of one line are told as one. */
function inPairs(depths: readonly Depth[]) {
  const all: { depth: Depth; names: string; now: boolean }[] = [];
  for (const depth of depths) {
    const other = all.find(
      (one) => Math.abs(one.depth.depth_m - depth.depth_m) < 0.005 && one.depth.diagonal === depth.diagonal,
    );
    const name = depth.facing.replace(/^the /, "");
    if (!other) all.push({ depth, names: name, now: depth.now });
    else {
      other.names = joined(other.names, name);
      other.now ||= depth.now;
    }
  }
  return all;
}

/** "left wall" and "right wall" are "left or right wall". */
function joined(one: string, other: string): string {
  const last = other.split(" ").at(-1) ?? "";
  const short = one.endsWith(` ${last}`) ? one.slice(0, -last.length - 1) : one;
  return `${short} or ${other}`;
}

export function Depths({ ground, units }: { ground: Schemas["Ground"]; units: UnitSystem }) {
  const longest = Math.max(...ground.depths.map((d) => d.depth_m));
  const part = scaleLinear([0, longest], [0, 100]);
  const ways = inPairs(ground.depths);
  return (
    <Section title="How deep the room is, each way you can face">
      <ul className="grid gap-0.5 text-sm">
        {ways.map(({ depth, names, now }) => (
          <li
            key={names}
            aria-current={now || undefined}
            className="grid grid-cols-[minmax(0,13rem)_minmax(0,1fr)_8.5rem] items-center gap-2 aria-[current]:font-bold"
          >
            <span>
              {now ? "✓ " : ""}
              {names}
            </span>
            <span className="bg-line block h-2.5 rounded-sm">
              <span
                className={`block h-full rounded-sm ${now ? "bg-ink" : "bg-faint"}`}
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
