// One picture of a plan, for where two stand side by side or many in a list. Until it is there the line drawing stands, or a word where only a part is wanted.
import { useQuery } from "@tanstack/react-query";

import { api, type Plan, type Schemas, type View } from "../api/client";
import { Drawing } from "../drawing/Drawing";
import { kept } from "./options";
import { taken, type Taken } from "./taken";

interface StillProps {
  plan: Plan;
  /** Exposed as this plan's camera is set: two pictures that stand beside each other. */
  like?: Plan | undefined;
  of?: Schemas["Of"];
  width?: number;
}

/** The picture, once it is there. */
export const useStill = (asked: StillProps): Taken | undefined => useTaken(asked).data;

function useTaken({ plan, like, of = "whole", width = 480 }: StillProps) {
  return useQuery({
    queryKey: ["still", plan, like, of, width],
    queryFn: ({ signal }) =>
      taken(signal, () => api.picture({ plan, of, width, ...(like ? { like } : {}) }, signal)),
    enabled: !kept().lines,
    // Until the next one is there the last stands.
    placeholderData: (before) => before,
    staleTime: Infinity,
    gcTime: 60_000,
    retry: false,
  });
}

interface Props extends StillProps {
  view: View;
  title: string;
  tallest: string;
  className?: string;
}

export function Still({ view, title, tallest, className = "", ...asked }: Props) {
  const { data: picture, isLoading } = useTaken(asked);
  // The line drawing shows the whole picture: it does not stand for the eyes alone.
  if (isLoading && asked.of === "eyes")
    return (
      <p
        role="status"
        className="grid aspect-[2/1] w-full place-items-center text-sm"
        style={{ maxHeight: tallest }}
      >
        Taking the picture …
      </p>
    );
  if (!picture)
    return <Drawing view={view} title={title} tallest={tallest} className={`frame-drawing ${className}`} />;
  return (
    <img src={picture.url} alt={title} className="mx-auto block rounded-sm" style={{ maxHeight: tallest }} />
  );
}
