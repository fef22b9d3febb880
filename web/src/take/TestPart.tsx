// The test take: sound and picture, each by itself.
import type { Schemas } from "../api/client";
import type { Keep } from "./Kept";
import { SoundTest } from "./SoundTest";
import { StillTest } from "./StillTest";

interface Props {
  corner: number;
  planned: Schemas["PlannedMarks"] | undefined;
  keep: Keep;
}

export function TestPart({ corner, planned, keep }: Props) {
  return (
    <div className="grid items-start gap-x-6 gap-y-5 lg:grid-cols-2">
      <SoundTest corner={corner} keep={keep} />
      <StillTest corner={corner} planned={planned} keep={keep} />
    </div>
  );
}
