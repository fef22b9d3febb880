// One plan judged and drawn, to stand beside another.
import { useQuery } from "@tanstack/react-query";

import { api, type Judged, type Plan } from "../api/client";
import { Drawing } from "../drawing/Drawing";
import { fixed } from "../units/length";
import { Standing } from "../ui/Standing";
import { Trouble, Waiting } from "../ui/states";

export interface JudgedSide {
  judged: Judged | undefined;
  error: unknown;
  retry: () => void;
}

/** Words in the small drawings, in parts of the usual. */
const WORDS = { text_scale: 1.9, frame_text_scale: 1.7, fixes: false };

export function useJudgedSide(plan: Plan | null): JudgedSide {
  const judged = useQuery({
    queryKey: ["compared", plan],
    queryFn: () => (plan ? api.assess(plan, WORDS) : null),
    enabled: plan !== null,
    staleTime: Infinity,
    gcTime: 60_000,
  });
  return { judged: judged.data ?? undefined, error: judged.error, retry: () => void judged.refetch() };
}

interface Props {
  side: JudgedSide;
  name: string;
  children?: React.ReactNode;
}

export function Side({ side, name, children }: Props) {
  if (side.error) return <Trouble error={side.error} onRetry={side.retry} />;
  if (!side.judged) return <Waiting what="Working it out" />;
  const { verdict, score } = side.judged.assessment;
  return (
    <section className="flex flex-col gap-3" aria-label={`Layout: ${name}`}>
      <p className="flex flex-wrap items-center gap-3">
        <Standing ready={verdict.ready} words={verdict.sentence} />
        <span className="text-faint">{fixed(100 * score, 0)} of 100</span>
      </p>
      <Drawing view={side.judged.drawing.plan} title={`The plan: ${name}`} tallest="36vh" />
      {children}
    </section>
  );
}
