// What spoils the light, in words.
import type { Schemas } from "../api/client";

export const SPOILS: Record<Schemas["Spoils"], string> = {
  "sun-on-face": "the sun shines into your eyes",
  "sun-in-lens": "the sun shines onto the lens",
  "sun-behind": "a patch of sun lies behind you",
  "too-dark": "the windows give too little light",
  "too-bright": "the windows outshine the lamps",
  "no-lamp": "no lamp lights you",
};

/** Minutes, as `2 h 35 min`. */
export function duration(minutes: number): string {
  const [hours, rest] = [Math.floor(minutes / 60), Math.round(minutes % 60)];
  if (hours === 0) return `${String(rest)} min`;
  return rest === 0 ? `${String(hours)} h` : `${String(hours)} h ${String(rest)} min`;
}

const WINDS = [
  "the north",
  "the north-east",
  "the east",
  "the south-east",
  "the south",
  "the south-west",
  "the west",
  "the north-west",
];

/** The direction of a bearing in words. */
export const compass = (azimuth: number): string => WINDS[Math.round(azimuth / 45) % 8] ?? "";

/** Stops, with their sign. */
export const stops = (value: number): string =>
  Math.abs(value) < 0.05 ? "0" : `${value > 0 ? "+" : "−"}${Math.abs(value).toFixed(1)}`;
