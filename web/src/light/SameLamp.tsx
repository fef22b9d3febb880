// The same key lamp, put where it is softer: it costs nothing.
import { api, type Judged } from "../api/client";
import { sentence } from "../table/show";
import { useTable } from "../table/useTable";
import type { UnitSystem } from "../units/length";
import { Button } from "../ui/button";
import { Section } from "../ui/Section";
import { COMPARED } from "./compared";

export function SameLamp({
  same,
  units,
}: {
  same: NonNullable<Judged["same_lamp"]> | null;
  units: UnitSystem;
}) {
  const table = useTable();
  if (!same) return null;
  return (
    <Section title="The same lamp elsewhere, for nothing">
      <ul className="mb-2 text-sm">
        {COMPARED.flatMap((id) => same.changes.filter((c) => c.reading === id)).map((c) => (
          <li key={c.reading}>
            {c.label}: {sentence(c.from, c.unit, units, c.reading)} →{" "}
            {sentence(c.to, c.unit, units, c.reading)}
          </li>
        ))}
      </ul>
      <Button onClick={() => table.act((p) => api.apply(p, same.patch))}>{same.label}</Button>
    </Section>
  );
}
