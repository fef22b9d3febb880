// The same frame at two focal lengths, side by side: what distance does to face and background.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { api, type Moved, type Plan, type ChartData } from "../api/client";
import { Pair } from "../picture/Pair";
import { Choice } from "../ui/fields";
import { Trouble } from "../ui/states";
import { Section } from "../ui/Section";
import { fixed, formatLength, type UnitSystem } from "../units/length";

interface Props {
  chart: ChartData;
  plan: Plan;
  units: UnitSystem;
}

/** Words in the small pictures, in parts of the usual. */
const WORDS = 1.9;

export function SideBySide({ chart, plan, units }: Props) {
  const fitting = chart.takes.filter((take) => take.kept_by == null);
  const [chosen, setChosen] = useState<[number | null, number | null]>([null, null]);
  const ends = [fitting[0], fitting.at(-1)].map((take) => take?.focal_length_mm ?? null);
  if (fitting.length < 2) return null;
  const pick = (side: 0 | 1) => {
    const wanted = chosen[side];
    return fitting.some((take) => take.focal_length_mm === wanted) ? wanted : ends[side];
  };
  return (
    <Section title="Two focal lengths side by side">
      <Both plan={plan} focals={[pick(0), pick(1)]} />
      <div className="mt-2 grid gap-3 sm:grid-cols-2">
        {([0, 1] as const).map((side) => {
          const focal = pick(side);
          const take = fitting.find((t) => t.focal_length_mm === focal);
          if (focal == null || !take) return null;
          return (
            <div key={side} className="flex flex-col gap-2">
              <Choice
                label={side === 0 ? "Left" : "Right"}
                value={String(focal)}
                onPick={(value) =>
                  setChosen(side === 0 ? [Number(value), chosen[1]] : [chosen[0], Number(value)])
                }
                options={fitting.map(
                  (t) =>
                    [
                      String(t.focal_length_mm),
                      `${fixed(t.focal_length_mm, 0)} mm at ${formatLength(t.distance_m, units)}`,
                    ] as const,
                )}
              />
              <p className="text-sm">
                Nose {fixed(take.nose_percent ?? 0, 0)} % larger, blur {fixed(take.blur_percent, 1)} % of the
                width, {formatLength(take.background_width_m, units)} of wall.
              </p>
            </div>
          );
        })}
      </div>
    </Section>
  );
}

/** The pictures at both focal lengths; nothing is saved. */
function Both({
  plan,
  focals: [left, right],
}: {
  plan: Plan;
  focals: [number | null | undefined, number | null | undefined];
}) {
  const [a, b] = [useSeen(plan, left), useSeen(plan, right)];
  const failed = [a, b].find((one) => one.isError);
  if (failed) return <Trouble error={failed.error} onRetry={() => void failed.refetch()} />;
  if (!a.data || !b.data) return <div className="frame-drawing aspect-[4/1]" />;
  const seen = (moved: Moved, focal: number | null | undefined) => ({
    plan: moved.plan,
    view: moved.judged.drawing.frame,
    name: `${fixed(focal ?? 0, 0)} mm`,
  });
  return <Pair left={seen(a.data, left)} right={seen(b.data, right)} />;
}

function useSeen(plan: Plan, focal: number | null | undefined) {
  return useQuery({
    queryKey: ["seen", plan, focal],
    queryFn: () =>
      api.move(
        plan,
        {
          thing: "camera",
          grip: "shot",
          focal_length_mm: focal ?? null,
          sheet: "plan",
          snap: false,
          anyway: true,
        },
        { frame_text_scale: WORDS, fixes: false },
      ),
    enabled: focal != null,
    placeholderData: (before) => before,
    staleTime: Infinity,
    gcTime: 60_000,
  });
}
