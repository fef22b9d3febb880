// A finding as it is seen: the picture as it is and with the move that mends it; where none does, the eyes alone close up, for the
// whole picture is on the page.
import { useQuery } from "@tanstack/react-query";

import { api, type Finding, type Plan } from "../api/client";
import { Eyes } from "../picture/Eyes";
import { Pair } from "../picture/Pair";
import { useJudged } from "../picture/useJudged";
import { seenIn } from "./seen";

export function Shown({ finding, plan }: { finding: Finding; plan: Plan }) {
  const of = seenIn(finding.id);
  const patch = finding.fix?.patch;
  const mended = useQuery({
    queryKey: ["mended", plan, patch],
    queryFn: () => (patch ? api.apply(plan, patch) : null),
    enabled: of !== null && patch !== undefined,
    staleTime: Infinity,
    gcTime: 60_000,
  }).data;
  const now = useJudged(of && (mended || of === "eyes") ? plan : null).judged;
  const then = useJudged(of && mended ? mended : null).judged;
  if (!of || !now) return null;
  if (!patch && of === "eyes") return <Eyes plan={plan} view={now.drawing.frame} tallest="22vh" />;
  if (!mended || !then) return null;
  return (
    <Pair
      left={{ plan, view: now.drawing.frame, name: "As it is" }}
      right={{ plan: mended, view: then.drawing.frame, name: "With the move" }}
      of={of}
      tallest="22vh"
    />
  );
}
