// What more or less distance behind you does, with this shot.
import type { Schemas } from "../api/client";
import { fixed, formatLength, type UnitSystem } from "../units/length";
import { Section } from "../ui/Section";
import { Table } from "../ui/Table";

export function Behind({ ground, units }: { ground: Schemas["Ground"]; units: UnitSystem }) {
  return (
    <Section title="Effect of the distance behind you">
      <Table>
        <thead>
          <tr>
            <th>Eyes to background</th>
            <th>Blur, part of the width</th>
            <th>Background darker by</th>
            <th>Back light on an arm</th>
          </tr>
        </thead>
        <tbody>
          {ground.bought.map((one) => (
            <tr key={`${one.behind_m}-${String(one.now)}`} aria-current={one.now || undefined}>
              <td>
                {one.now ? (
                  <strong>✓ {formatLength(one.behind_m, units)} now</strong>
                ) : (
                  formatLength(one.behind_m, units)
                )}
              </td>
              <td>{fixed(one.blur_percent, 1)} %</td>
              <td>{one.separation_stops == null ? "no key" : `${fixed(one.separation_stops, 1)} stops`}</td>
              <td>{one.back_light ? "fits" : "too near"}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Section>
  );
}
