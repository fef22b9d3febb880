// The eyes close up, as the camera takes them: where catchlights sit, what glasses show.
import type { Plan, View } from "../api/client";
import { settings } from "./settings";
import { Still } from "./Still";

interface Props {
  plan: Plan;
  view: View;
  tallest: string;
  width?: number;
}

export function Eyes({ plan, ...rest }: Props) {
  return (
    <figure className="bg-surround rounded-lg p-2 text-white">
      <Still plan={plan} of="eyes" title="The eyes, close up" {...rest} />
      <figcaption className="mt-1.5 text-xs">{settings(plan)}</figcaption>
    </figure>
  );
}
