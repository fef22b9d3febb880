// What B can be.
import type { Side } from "../hearing/player";
import type { Other } from "./useListening";
import type { Variant } from "../hearing/useTwoTakes";

export const OTHERS: readonly (readonly [Variant, string])[] = [
  ["built-in", "the camera's own microphone"],
  ["on-camera", "a short shotgun on the camera"],
  ["boom-shotgun", "a short shotgun on a boom"],
  ["boom", "a small condenser on a boom"],
  ["lavalier", "a lavalier on the chest"],
  ["desk", "a microphone on the desk"],
  ["headset", "a headset"],
  ["bare", "without panels, rugs and blankets"],
  ["treated", "with everything hung that is advised"],
];

export const HELD = ["held", "the corner as you put it aside"] as const;

export const nameOf = (side: Side, other: Other): string => {
  if (side === "a") return "as planned";
  return other === "held" ? HELD[1] : (OTHERS.find(([variant]) => variant === other)?.[1] ?? "");
};
