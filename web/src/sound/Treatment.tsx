// Against the echo: what is hung, what would help, cheap things first, and where.
import { useState } from "react";

import { api, type Plan, type Schemas } from "../api/client";
import type { Table } from "../corner/useWorktable";
import { Trouble } from "../ui/states";
import { fixed, formatGap } from "../units/length";
import { sentence } from "../corner/show";

interface Props {
  advice: Schemas["TreatmentAdvice"];
  plan: Plan;
  table: Table;
}

/** As wide and high as an area is hung by itself, m: no wider than two metres. */
export function sizeOf(areaM2: number): [number, number] {
  const side = Math.min(Math.sqrt(areaM2), 2);
  return [Math.round((areaM2 / side) * 100) / 100, Math.round(side * 100) / 100];
}

/** A plan without a hung thing; its gear stays on the shelf unless it was put there only to be hung. */
export function withoutTreatment(plan: Plan, id: string): Plan {
  const treatment = { ...plan.layout.treatment };
  const gear = treatment[id]?.gear;
  Reflect.deleteProperty(treatment, id);
  const shelf = { ...plan.brief.gear };
  const used = Object.values(treatment).some((one) => one.gear === gear);
  if (gear !== undefined && !used && shelf[gear]?.state === "wanted") Reflect.deleteProperty(shelf, gear);
  return { ...plan, layout: { ...plan.layout, treatment }, brief: { ...plan.brief, gear: shelf } };
}

export function Treatment({ advice, plan, table }: Props) {
  const [trouble, setTrouble] = useState<unknown>(null);
  const hang = (material: string, areaM2: number) => {
    setTrouble(null);
    table.edit(async (p) => {
      try {
        return await api.treatment(p, material, ...sizeOf(areaM2));
      } catch (error) {
        setTrouble(error);
        return p;
      }
    });
  };
  const units = plan.brief.units ?? "metric";
  const hung = Object.entries(plan.layout.treatment ?? {});
  const there = advice.missing_m2 <= 0.05;
  return (
    <section aria-labelledby="treatment">
      <h3 id="treatment" className="subheading">
        Against the echo
      </h3>
      {trouble !== null && <Trouble error={trouble} onRetry={() => setTrouble(null)} retryWords="Close" />}
      <p>
        {there
          ? `Nothing is missing: the room rings ${fixed(advice.rt_mid_s, 2)} s.`
          : `The room rings ${fixed(advice.rt_mid_s, 2)} s; ${sentence(advice.missing_m2, "m²", units)} of absorption bring it to ${fixed(advice.target_s, 2)} s.`}
      </p>
      {hung.length > 0 && (
        <ul className="hung">
          {hung.map(([id, one]) => (
            <li key={id}>
              <span className="mr-auto">
                <b>{id.replaceAll("-", " ")}</b>{" "}
                <span className="text-faint">{plan.brief.gear?.[one.gear]?.label}</span>
              </span>
              <button
                type="button"
                className="button button-small"
                onClick={() => table.edit((p) => withoutTreatment(p, id))}
              >
                Take it down
              </button>
            </li>
          ))}
        </ul>
      )}
      {hung.length > 0 && (
        <p className="text-faint text-sm">
          Drag it along the walls in the plan, up and down in the side view, or type its place below.
        </p>
      )}
      {advice.steps.length > 0 && (
        <table className="takes takes-words">
          <thead>
            <tr>
              <th>Cheap things first</th>
              <th>Then it rings</th>
              <th>Gains</th>
              <td />
            </tr>
          </thead>
          <tbody>
            {advice.steps.map((step, index) => (
              <tr key={index}>
                <td>
                  {step.label}, {sentence(step.area_m2, "m²", units)}
                </td>
                <td>
                  {fixed(step.rt_mid_s, 2)} s
                  {step.sti != null && (
                    <span className="text-faint block text-xs">STI {fixed(step.sti, 2)}</span>
                  )}
                </td>
                <td>
                  {fixed(step.gain_s, 2)} s
                  {step.sti_gain != null && (
                    <span className="text-faint block text-xs">+{fixed(step.sti_gain, 2)}</span>
                  )}
                </td>
                <td>
                  <button
                    type="button"
                    className="button button-small"
                    onClick={() => hang(step.material, step.area_m2)}
                  >
                    {step.material === "rug" ? "Lay it" : "Hang it"}
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <details>
        <summary>Each thing by itself</summary>
        <table className="takes takes-words">
          <thead>
            <tr>
              <th>What</th>
              <th>Reaches {fixed(advice.target_s, 2)} s with</th>
              <th>As much as fits</th>
            </tr>
          </thead>
          <tbody>
            {advice.alone.map((one) => (
              <tr key={one.material}>
                <td>
                  {one.label}
                  {one.estimate && <span className="text-faint"> (good to 40 %)</span>}
                </td>
                <td>{one.area_m2 == null ? "not alone" : sentence(one.area_m2, "m²", units)}</td>
                <td>
                  {sentence(one.most_m2, "m²", units)}
                  {one.area_m2 == null && (
                    <span className="text-faint block text-xs">{fixed(one.reaches_s, 2)} s</span>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
      {advice.places.length > 0 && (
        <>
          <p className="mt-2 font-semibold">Where, first things first</p>
          <ol className="places">
            {advice.places.map((place) => (
              <li key={place.surface}>{place.sentence}</li>
            ))}
          </ol>
        </>
      )}
      <p className="caution-line">
        Blankets {formatGap(0.1, units)} off the wall, never flat on it. Keep cloth off lamps; nothing heavy
        over a head.
      </p>
    </section>
  );
}
