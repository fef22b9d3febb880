// What spoils the light, in words.
import type { Schemas } from "../api/client";

export const SPOILS: Record<Schemas["Spoils"], string> = {
  "sun-on-face": "the sun shines into your eyes",
  "sun-in-lens": "the sun shines onto the lens",
  "sun-behind": "a patch of sun lies behind you",
  "too-dark": "the windows give too little light",
  "too-bright": "the windows outshine the lamps",
};
