// Readings in which two plans differ, those whose standing changed first.
import type { Judged, Reading } from "../api/client";
import { sentence, STANDING_MARKS } from "../table/show";
import type { UnitSystem } from "../units/length";
import { count } from "../units/text";
import { Section } from "../ui/Section";
import { Table } from "../ui/Table";

interface Row {
  id: string;
  from: Reading | undefined;
  to: Reading | undefined;
}

const stands = ({ from, to }: Row) => from?.standing !== to?.standing;

interface Props {
  left: Judged;
  right: Judged;
  /** What the two are called. */
  names?: readonly [string, string];
  units: UnitSystem;
}

export function Changed({ left, right, names = ["Left", "Right"], units }: Props) {
  const was = new Map(left.assessment.readings.map((r) => [r.id, r]));
  const is = new Map(right.assessment.readings.map((r) => [r.id, r]));
  const ids = [...new Set([...was.keys(), ...is.keys()])];
  const value = (r: Reading | undefined) =>
    r ? `${sentence(r.value, r.unit, units, r.id)} ${STANDING_MARKS[r.standing]}`.trim() : "–";
  const rows = ids
    .map((id): Row => ({ id, from: was.get(id), to: is.get(id) }))
    .filter(({ from, to }) => value(from) !== value(to))
    .sort((a, b) => Number(stands(b)) - Number(stands(a)));
  return (
    <Section title="What differs">
      {rows.length === 0 ? (
        <p>Every reading is the same.</p>
      ) : (
        <Table label="Readings that differ">
          <thead>
            <tr>
              <th>Reading</th>
              <th>{names[0]}</th>
              <th>{names[1]}</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.id}>
                <td>{(row.to ?? row.from)?.label}</td>
                <td>{value(row.from)}</td>
                <td className={stands(row) ? "font-bold" : ""}>{value(row.to)}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      <p className="text-faint mt-2 text-sm">
        ✓ good, ○ fair, ▲ poor. {count(ids.length - rows.length, "reading is", "readings are")} the same.
      </p>
    </Section>
  );
}
