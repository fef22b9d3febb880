// What has changed of the light since it was put aside to compare.
import type { Reading } from "../api/client";
import { sentence } from "../table/show";
import type { UnitSystem } from "../units/length";
import { Table } from "../ui/Table";
import { COMPARED } from "./compared";

interface Props {
  before: Reading[];
  now: Reading[];
  units: UnitSystem;
}

export function Differences({ before, now, units }: Props) {
  const of = (readings: Reading[], id: string) => readings.find((r) => r.id === id);
  return (
    <Table>
      <thead>
        <tr>
          <th>Reading</th>
          <th>Before</th>
          <th>Now</th>
        </tr>
      </thead>
      <tbody>
        {COMPARED.flatMap((id) => {
          const [a, b] = [of(before, id), of(now, id)];
          if (!a || !b) return [];
          const [was, is] = [a, b].map((r) => sentence(r.value, r.unit, units, r.id));
          return (
            <tr key={id}>
              <td>{b.label}</td>
              <td>{was}</td>
              <td className={was === is ? "text-faint" : "font-bold"}>{is}</td>
            </tr>
          );
        })}
      </tbody>
    </Table>
  );
}
