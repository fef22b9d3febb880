// Which findings can be seen in the picture, and where.
import type { Schemas } from "../api/client";

const EYES = /^(light\..*(socket|catchlight|nose_shadow|glare)|shot\.seat\.gaze)/;
const WHOLE =
  /^(light\.(?!.*\.hot$)(face|key|back|background|screen)\.|light\..*\.missing|shot\.(frame|background|camera|focus|cloth)|legal\.picture)/;

/** The part of the picture in which a finding is seen; nothing for what is heard, paid or walked. */
export function seenIn(finding: string): Schemas["Of"] | null {
  if (EYES.test(finding)) return "eyes";
  return WHOLE.test(finding) ? "whole" : null;
}
