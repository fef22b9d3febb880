// The wanted frame at every focal length at hand, and the two schools at their best: press one to take it.
import type { Move, ChartData } from "../api/client";
import type { Table } from "../corner/useWorktable";
import { fixed, formatLength, type UnitSystem } from "../units/length";

interface Props {
  chart: ChartData;
  table: Table;
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
  `${fixed(focal, focal < 10 ? 1 : 0)} mm, like ${fixed(focal * chart.crop_factor, 0)}`;

export function Takes({ chart, table, units, locked }: Props) {
  const now = chart.now.focal_length_mm;
  return (
    <section aria-labelledby="takes">
      <h3 id="takes" className="subheading">
        This frame at each focal length
      </h3>
      <div className="table-wide" tabIndex={0} role="group" aria-label="Focal lengths, a table">
        <table className="takes">
          <thead>
            <tr>
              <th>Focal length, real and as on full frame</th>
              <th>From the eyes</th>
              <th>Nose</th>
              <th>Blur</th>
              <th className="wide-only">Wall in view</th>
              <th className="wide-only">Near school</th>
              <th className="wide-only">Far school</th>
            </tr>
          </thead>
          <tbody>
            {chart.takes.map((take) => {
              const here = chart.now.frames && Math.abs(take.focal_length_mm / now - 1) < 0.01;
              return (
                <tr key={take.focal_length_mm} aria-current={here || undefined}>
                  <td>
                    {here ? (
                      <strong>✓ {lensOf(take.focal_length_mm, chart)}</strong>
                    ) : take.kept_by ? (
                      <>
                        {lensOf(take.focal_length_mm, chart)}
                        <span className="text-faint block text-xs">{take.kept_by}</span>
                      </>
                    ) : (
                      <button
                        type="button"
                        className="button button-small"
                        disabled={locked}
                        onClick={() => void table.move(to(take.focal_length_mm), null, false)}
                      >
                        {lensOf(take.focal_length_mm, chart)}
                      </button>
                    )}
                  </td>
                  <td>{formatLength(take.distance_m, units)}</td>
                  <td>{take.nose_percent == null ? "–" : `${fixed(take.nose_percent, 0)} %`}</td>
                  <td>{fixed(take.blur_percent, 1)} %</td>
                  <td className="wide-only">{formatLength(take.background_width_m, units)}</td>
                  <td className="wide-only">{fixed(take.near_and_wide_percent, 0)} %</td>
                  <td className="wide-only">{fixed(take.far_and_long_percent, 0)} %</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <div className="mt-3 grid gap-3 sm:grid-cols-2">
        {chart.schools.map((school) => {
          const score =
            school.id === "near-and-wide"
              ? school.best?.near_and_wide_percent
              : school.best?.far_and_long_percent;
          return (
            <div key={school.id} className="sheet flex flex-col gap-1 p-3">
              <p className="font-semibold">
                {school.label}
                {school.chosen && <span className="text-faint font-normal">, your school</span>}
              </p>
              {school.best ? (
                <>
                  <p className="text-sm">
                    At its best here {lensOf(school.best.focal_length_mm, chart)}, from{" "}
                    {formatLength(school.best.distance_m, units)}: serves it to {fixed(score ?? 0, 0)} %.
                  </p>
                  <button
                    type="button"
                    className="button button-small mt-auto self-start"
                    disabled={locked}
                    onClick={() => {
                      const focal = school.best?.focal_length_mm;
                      if (focal) void table.move(to(focal), null, false);
                    }}
                  >
                    Stand there
                  </button>
                </>
              ) : (
                <p className="text-faint text-sm">No lens at hand fits between you and {chart.ends_at}.</p>
              )}
            </div>
          );
        })}
      </div>
    </section>
  );
}
