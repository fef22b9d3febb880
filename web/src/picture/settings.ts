// How a plan's camera is set, in a line.
import type { Plan } from "../api/client";
import { fixed } from "../units/length";

export function settings({ layout: { camera } }: Plan): string {
  const crop = camera.crop ?? 1;
  const cropped = crop > 1 ? `, cropped ${fixed(crop, 1)}×` : "";
  const focal = fixed(camera.focal_length_mm, camera.focal_length_mm < 10 ? 1 : 0);
  return `${focal} mm${cropped} · f/${camera.f_number} · 1/${Math.round(1 / camera.shutter_s)} · ISO ${camera.iso} · ${camera.white_balance_k} K`;
}
