// One sentence: why this layout, or how it differs from the best one found.
import type { Layout } from "../api/client";
import { partsThatDiffer } from "../table/parts";
import type { Found } from "../table/proposals";
import { count } from "../units/text";

interface Props {
  found: Found | undefined;
  layout: Layout;
  score: number;
}

export function Reason({ found, layout, score }: Props) {
  const best = found?.proposals[0];
  if (!found) return <p className="text-faint">Comparing it with other layouts …</p>;
  const taken = found.proposals.find((p) => partsThatDiffer(p.plan, { ...p.plan, layout }).length === 0);
  if (taken) return <p>{taken.reason}</p>;
  if (!best) return <p>This layout is your own: the search finds none that breaks no rule.</p>;
  const points = Math.round(100 * (best.score - score));
  return (
    <p>
      This layout is your own. The best one found{" "}
      {points > 0 ? `scores ${count(points, "point")} more` : "scores no more"}:{" "}
      {best.reason.replace(/^You/, "you")}
    </p>
  );
}
