// Reduce echo: what is hung, what would help, cheap things first, and where.
import { useState } from "react";

import { api, type Plan, type Schemas } from "../api/client";
import { sentence } from "../table/show";
import { useTable } from "../table/useTable";
import { Button } from "../ui/button";
import { Section } from "../ui/Section";
import { Trouble } from "../ui/states";
import { Table } from "../ui/Table";
import { spoken } from "../units/text";
import { fixed, formatGap } from "../units/length";
import { sizeOf, withoutTreatment } from "./hanging";

interface Props {
  advice: Schemas["TreatmentAdvice"];
  plan: Plan;
}

export default function Treatment({ advice, plan }: Props) {
  const units = plan.brief.units ?? "metric";
  return (
    <Section title="Reduce echo">
      <p className="text-sm">
        {advice.missing_m2 <= 0.05
          ? `Nothing is missing: reverberation time ${fixed(advice.rt_mid_s, 2)} s.`
          : `Reverberation time ${fixed(advice.rt_mid_s, 2)} s. ${sentence(advice.missing_m2, "m²", units)} of absorption bring it to ${fixed(advice.target_s, 2)} s.`}
      </p>
      <Hung plan={plan} />
      <Steps advice={advice} plan={plan} />
      <details>
        <summary className="min-h-6 cursor-pointer text-sm font-semibold">Each thing alone</summary>
        <Table>
          <thead>
            <tr>
              <th>What</th>
              <th>Area that reaches {fixed(advice.target_s, 2)} s</th>
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
        </Table>
      </details>
      {advice.places.length > 0 && (
        <>
          <p className="mt-2 text-sm font-semibold">Where to hang it, in this order</p>
          <ol className="list-decimal pl-5 text-sm">
            {advice.places.map((place) => (
              <li key={place.surface}>{place.sentence}</li>
            ))}
          </ol>
        </>
      )}
      <p className="border-ember mt-2 border-l-4 pl-2 text-sm">
        Blankets {formatGap(0.1, units)} off the wall, never flat on it. Keep cloth off lamps; nothing heavy
        over a head.
      </p>
    </Section>
  );
}

/** What hangs already. */
function Hung({ plan }: { plan: Plan }) {
  const table = useTable();
  const hung = Object.entries(plan.layout.treatment ?? {});
  if (hung.length === 0) return null;
  return (
    <>
      <ul className="text-sm">
        {hung.map(([id, one]) => (
          <li key={id} className="border-line flex items-baseline gap-2 border-b py-1">
            <span className="mr-auto">
              <b>{spoken(id)}</b> <span className="text-faint">{plan.brief.gear?.[one.gear]?.label}</span>
            </span>
            <Button
              size="small"
              aria-label={`Remove ${spoken(id)}`}
              onClick={() => table.act((p) => withoutTreatment(p, id))}
            >
              Remove
            </Button>
          </li>
        ))}
      </ul>
      <p className="text-faint text-xs">
        Drag it along the walls in the plan, up and down in the side view, or type its place under By hand.
      </p>
    </>
  );
}

/** What to hang next, cheap things first. */
function Steps({ advice, plan }: Props) {
  const table = useTable();
  const [trouble, setTrouble] = useState<unknown>(null);
  const units = plan.brief.units ?? "metric";
  const hang = async (material: string, areaM2: number) => {
    setTrouble(null);
    try {
      await table.edit((p) => api.treatment(p, material, ...sizeOf(areaM2)));
    } catch (error) {
      table.putTroubleAway();
      setTrouble(error);
    }
  };
  if (advice.steps.length === 0) return null;
  return (
    <>
      {trouble !== null && <Trouble error={trouble} onRetry={() => setTrouble(null)} retryWords="Close" />}
      <Table>
        <thead>
          <tr>
            <th>Cheap things first</th>
            <th>Then</th>
            <th>Gain</th>
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
                <Button size="small" onClick={() => void hang(step.material, step.area_m2)}>
                  {step.material === "rug" ? "Lay it" : "Hang it"}
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </>
  );
}
