// The picture as the lens sees it, with guides that are switched on and off.
import { useState } from "react";

import type { Judged, Plan } from "../api/client";
import { Drawing } from "../drawing/Drawing";
import { fixed } from "../units/length";

const GUIDES = [
  ["thirds", "Thirds"],
  ["centre", "Centre"],
  ["safe", "Safe area"],
  ["vertical", "9:16"],
  ["headroom", "Headroom"],
] as const;

type Guide = (typeof GUIDES)[number][0];

const KEPT = "fogon.guides";

/** Which guides were on last; thirds and headroom the first time. */
function kept(): Guide[] {
  try {
    const told: unknown = JSON.parse(localStorage.getItem(KEPT) ?? "null");
    if (Array.isArray(told)) return GUIDES.map(([id]) => id).filter((id) => told.includes(id));
  } catch {
    // Nothing kept, or nothing that can be read.
  }
  return ["thirds"];
}

export function Picture({ judged, plan, switches }: { judged: Judged; plan: Plan; switches: boolean }) {
  const [on, setOn] = useState(kept);
  const { camera } = plan.layout;
  const portrait = camera.orientation === "portrait";
  const flip = (guide: Guide) => {
    const next = on.includes(guide) ? on.filter((g) => g !== guide) : [...on, guide];
    setOn(next);
    localStorage.setItem(KEPT, JSON.stringify(next));
  };
  return (
    <figure className="picture">
      <Drawing
        view={judged.drawing.frame}
        title="The picture as the lens sees it"
        className={`frame-drawing ${on.map((guide) => `show-${guide}`).join(" ")}`}
      />
      <figcaption>
        <span>
          {camera.focal_length_mm} mm
          {(camera.crop ?? 1) > 1 &&
            `, cropped ${fixed(camera.crop ?? 1, 1)}× (the pale border is cut off)`}{" "}
          · f/
          {camera.f_number} · 1/{Math.round(1 / camera.shutter_s)} s · ISO {camera.iso} ·{" "}
          {camera.white_balance_k} K
        </span>
        {switches && (
          <span className="guides" role="group" aria-label="Guides in the picture">
            {GUIDES.filter(([id]) => id !== "vertical" || !portrait).map(([id, label]) => (
              <button
                key={id}
                type="button"
                className="guide-switch"
                aria-pressed={on.includes(id)}
                onClick={() => flip(id)}
              >
                {label}
              </button>
            ))}
          </span>
        )}
      </figcaption>
    </figure>
  );
}
