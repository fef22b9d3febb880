// Two pictures side by side at the same exposure, to be judged by looking; saved as one, with the settings written under it.
import { useState } from "react";

import type { Plan, Schemas, View } from "../api/client";
import { Button } from "../ui/button";
import { handOut, stemOf } from "../ui/download";
import { joined } from "./joined";
import { settings } from "./settings";
import { Still, useStill } from "./Still";

export interface Seen {
  plan: Plan;
  view: View;
  name: string;
}

interface Props {
  left: Seen;
  right: Seen;
  /** What is shown first. */
  of?: Schemas["Of"];
  tallest?: string;
}

const WIDTH_PX = 640;

export function Pair({ left, right, of: first = "whole", tallest = "32vh" }: Props) {
  const [of, setOf] = useState(first);
  const closer = of === "eyes";
  const asked = { like: left.plan, of, width: WIDTH_PX } as const;
  const taken = [useStill({ plan: left.plan, ...asked }), useStill({ plan: right.plan, ...asked })];
  const save = async () => {
    const [a, b] = taken;
    if (!a || !b) return;
    const words = [left, right].map((one) => [one.name, settings(one.plan)] as const);
    handOut(await joined([a.blob, b.blob], words), `${stemOf(left.plan.name)}-${stemOf(right.name)}.png`);
  };
  return (
    <div className="bg-surround rounded-lg p-2 text-white">
      <div className="grid grid-cols-2 items-start gap-2">
        {[left, right].map((one) => (
          <figure key={one.name} className="min-w-0">
            <Still
              {...one}
              like={left.plan}
              of={of}
              width={WIDTH_PX}
              title={`The picture: ${one.name}`}
              tallest={tallest}
            />
            <figcaption className="mt-1 text-xs">
              <b>{one.name}</b> · {settings(one.plan)}
            </figcaption>
          </figure>
        ))}
      </div>
      <p className="mt-1 flex flex-wrap items-center gap-2 text-xs">
        <span className="mr-auto">Both exposed as the left one.</span>
        <Light onClick={() => setOf(closer ? "whole" : "eyes")}>
          {closer ? "Whole picture" : "Closer to the eyes"}
        </Light>
        <Light onClick={() => void save()} disabled={!taken[0] || !taken[1]}>
          Save both as PNG
        </Light>
      </p>
    </div>
  );
}

/** A button on the picture's surround. */
function Light(props: React.ComponentProps<typeof Button>) {
  return <Button size="small" {...props} />;
}
