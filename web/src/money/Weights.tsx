// Own weights of the aspects, in place of those of the spending school.
import type { Plan, Schemas } from "../api/client";
import { withWeights } from "../table/edits";
import { useTable } from "../table/useTable";
import { Button } from "../ui/button";
import { Section } from "../ui/Section";
import { Slide } from "../ui/Slide";

type Own = Schemas["Weights"];

const ASPECTS: readonly (readonly [keyof Own, string])[] = [
  ["sound", "Sound"],
  ["light", "Light"],
  ["room", "Room"],
  ["picture", "Picture"],
  ["comfort", "Comfort"],
];

interface Props {
  plan: Plan;
  /** What counts now, of 1. */
  now: Own;
}

export function Weights({ plan, now }: Props) {
  const table = useTable();
  const own = plan.brief.money?.weights ?? null;
  const shown = own ?? now;
  const total = ASPECTS.reduce((all, [aspect]) => all + shown[aspect], 0);
  return (
    <Section
      title="What counts how much"
      aside={
        own && (
          <Button size="small" onClick={() => table.act((p) => withWeights(p, null))}>
            As the school has it
          </Button>
        )
      }
    >
      <div className="grid max-w-xl gap-1 text-sm">
        {ASPECTS.map(([aspect, label]) => {
          const part = total > 0 ? Math.round((100 * shown[aspect]) / total) : 0;
          return (
            <div key={aspect} className="grid grid-cols-[5rem_minmax(0,1fr)_3rem] items-center gap-3">
              <span>{label}</span>
              <Slide
                name={`Weight of ${label.toLowerCase()}`}
                value={Math.round(100 * shown[aspect])}
                within={[0, 100]}
                step={1}
                words={(value) => `${value} of 100`}
                onSlide={(value) => table.edit((p) => withWeights(p, { ...shown, [aspect]: value / 100 }))}
              />
              <span className="text-right">{part} %</span>
            </div>
          );
        })}
      </div>
    </Section>
  );
}
