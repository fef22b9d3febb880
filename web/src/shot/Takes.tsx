// The wanted frame at every focal length at hand, and the two lens schools at their best.
import type { Move, ChartData } from "../api/client";
import { useTable } from "../table/useTable";
import { fixed, formatLength, type UnitSystem } from "../units/length";
import { Button } from "../ui/button";
import { Section, SHEET } from "../ui/Section";
import { Table } from "../ui/Table";

interface Props {
  chart: ChartData;
  units: UnitSystem;
  locked: boolean;
}

const to = (focal_length_mm: number): Move => ({
  thing: "camera",
  grip: "shot",
  focal_length_mm,
  sheet: "plan",
  snap: false,
  anyway: false,
});

const lensOf = (focal: number, chart: ChartData) =>
  `${fixed(focal, focal < 10 ? 1 : 0)}\u00a0mm, as ${fixed(focal * chart.crop_factor, 0)}\u00a0mm`;

export function Takes({ chart, units, locked }: Props) {
  const table = useTable();
  const now = chart.now.focal_length_mm;
  const take = (focal: number) => void table.put(to(focal)).catch(() => undefined);
  return (
    <Section title="This frame at each focal length">
      <Table label="Focal lengths">
        <thead>
          <tr>
            <th>Focal length, on full frame</th>
            <th>From the eyes</th>
            <th>Nose larger by</th>
            <th>Blur</th>
            <th className="wide-only">Wall in view</th>
            <th className="wide-only">Near, wide</th>
            <th className="wide-only">Far, long</th>
          </tr>
        </thead>
        <tbody>
          {chart.takes.map((one) => {
            const here = chart.now.frames && Math.abs(one.focal_length_mm / now - 1) < 0.01;
            const lens = lensOf(one.focal_length_mm, chart);
            return (
              <tr key={one.focal_length_mm} aria-current={here || undefined}>
                <td>
                  {here ? (
                    <strong>✓ {lens}</strong>
                  ) : one.kept_by ? (
                    <>
                      {lens}
                      <span className="text-faint block text-xs">{one.kept_by}</span>
                    </>
                  ) : (
                    <Button size="small" disabled={locked} onClick={() => take(one.focal_length_mm)}>
                      {lens}
                    </Button>
                  )}
                </td>
                <td>{formatLength(one.distance_m, units)}</td>
                <td>{one.nose_percent == null ? "–" : `${fixed(one.nose_percent, 0)}\u00a0%`}</td>
                <td className="whitespace-nowrap">{fixed(one.blur_percent, 1)} %</td>
                <td className="wide-only">{formatLength(one.background_width_m, units)}</td>
                <td className="wide-only">{fixed(one.near_and_wide_percent, 0)} %</td>
                <td className="wide-only">{fixed(one.far_and_long_percent, 0)} %</td>
              </tr>
            );
          })}
        </tbody>
      </Table>
      <div className="mt-3 grid gap-3 sm:grid-cols-2">
        {chart.schools.map((school) => (
          <BestOf key={school.id} school={school} chart={chart} units={units} locked={locked} onTake={take} />
        ))}
      </div>
    </Section>
  );
}

/** A lens school at its best here. */
function BestOf({
  school,
  chart,
  units,
  locked,
  onTake,
}: Props & { school: ChartData["schools"][number]; onTake: (focal: number) => void }) {
  const { best } = school;
  const match = school.id === "near-and-wide" ? best?.near_and_wide_percent : best?.far_and_long_percent;
  return (
    <div className={`${SHEET} flex flex-col gap-1 p-3`}>
      <p className="font-semibold">
        {school.label}
        {school.chosen && <span className="text-faint font-normal">, your school</span>}
      </p>
      {best ? (
        <>
          <p className="text-sm">
            Best here: {lensOf(best.focal_length_mm, chart)} from {formatLength(best.distance_m, units)},{" "}
            {fixed(match ?? 0, 0)} % match.
          </p>
          <span className="mt-auto">
            <Button size="small" disabled={locked} onClick={() => onTake(best.focal_length_mm)}>
              Move the camera there
            </Button>
          </span>
        </>
      ) : (
        <p className="text-faint text-sm">No lens at hand fits between you and {chart.ends_at}.</p>
      )}
    </div>
  );
}
