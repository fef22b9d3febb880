// How deep the room is through the seat, each way that one can face.
import { scaleLinear } from "d3-scale";

import type { Schemas } from "../api/client";
import { formatLength, type UnitSystem } from "../units/length";
import { SHEET } from "../ui/Section";

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
    <section
      className={`${SHEET} grid content-start gap-1 p-3 text-sm`}
      aria-label="Depth, each way you can face"
    >
      <p className="leading-tight font-semibold">Depth, each way you can face</p>
      <ul className="grid gap-1.5">
        {ways.map(({ depth, names, now }) => (
          <li key={names} aria-current={now || undefined} className="aria-[current]:font-bold">
            <span className="flex flex-wrap items-baseline justify-between gap-x-2 text-xs leading-snug">
              <span>
                {now ? "✓ " : ""}
                {names}
              </span>
              <span className="ml-auto whitespace-nowrap">
                {formatLength(depth.depth_m, units)}
                {depth.diagonal && (
                  <span className="text-faint font-normal">
                    {" "}
                    {depth.gain_m >= 0 ? "+" : "−"}
                    {formatLength(Math.abs(depth.gain_m), units)}
                  </span>
                )}
              </span>
            </span>
            <span className="bg-line block h-1.5 rounded-sm">
              <span
                className={`block h-full rounded-sm ${now ? "bg-ink" : "bg-faint"}`}
                style={{ width: `${part(depth.depth_m)}%` }}
              />
            </span>
          </li>
        ))}
      </ul>
      <p className="text-faint text-xs">Wall to wall; +: against the deepest way square to a wall.</p>
    </section>
  );
}
