// The picture as the lens sees it: one component for every place where it is shown, large or docked.
import { Popover, ToggleGroup } from "radix-ui";
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

const KEPT = "fogon.guides";

/** Which guides were on last; thirds the first time. */
function kept(): string[] {
  try {
    const told: unknown = JSON.parse(localStorage.getItem(KEPT) ?? "null");
    if (Array.isArray(told)) return GUIDES.map(([id]) => id).filter((id) => told.includes(id));
  } catch {
    // Nothing kept, or nothing that can be read.
  }
  return ["thirds"];
}

interface Props {
  judged: Judged;
  plan: Plan;
  /** Docked: small, without guides to switch. */
  size: "large" | "docked";
}

export function Picture({ judged, plan, size }: Props) {
  const [on, setOn] = useState(kept);
  const { camera } = plan.layout;
  const portrait = camera.orientation === "portrait";
  const docked = size === "docked";
  const change = (next: string[]) => {
    setOn(next);
    localStorage.setItem(KEPT, JSON.stringify(next));
  };
  return (
    <figure className={`bg-surround min-w-0 rounded-lg text-white ${docked ? "p-1.5" : "p-2"}`}>
      <Drawing
        view={judged.drawing.frame}
        title="The picture as the lens sees it"
        tallest={docked ? "7rem" : "27vh"}
        className={`frame-drawing mx-auto rounded-sm ${docked ? "bare" : ""} ${on.map((guide) => `show-${guide}`).join(" ")}`}
      />
      <figcaption className={docked ? "mt-1 text-xs" : "mt-1.5 flex flex-wrap gap-x-3 gap-y-1 text-xs"}>
        <span className="mr-auto">{settings(plan)}</span>
        {!docked && (
          <Guides
            on={on}
            onChange={change}
            guides={GUIDES.filter(([id]) => id !== "vertical" || !portrait)}
          />
        )}
      </figcaption>
    </figure>
  );
}

interface GuidesProps {
  guides: readonly (readonly [string, string])[];
  on: string[];
  onChange: (on: string[]) => void;
}

/** Guides over the picture, switched on and off. */
function Guides({ guides, on, onChange }: GuidesProps) {
  return (
    <Popover.Root>
      <Popover.Trigger className="min-h-6 cursor-pointer rounded border border-white/70 px-2 text-xs">
        Guides
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          className="border-line bg-paper text-ink z-30 rounded-xl border p-2"
        >
          <ToggleGroup.Root
            type="multiple"
            value={on}
            onValueChange={onChange}
            aria-label="Guides in the picture"
            className="grid gap-1"
          >
            {guides.map(([id, label]) => (
              <ToggleGroup.Item
                key={id}
                value={id}
                className="data-[state=on]:bg-ember-soft min-h-8 cursor-pointer rounded-lg px-3 text-left text-sm"
              >
                {on.includes(id) ? "✓ " : ""}
                {label}
              </ToggleGroup.Item>
            ))}
          </ToggleGroup.Root>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function settings({ layout: { camera } }: Plan): string {
  const crop = camera.crop ?? 1;
  const cropped = crop > 1 ? `, cropped ${fixed(crop, 1)}×` : "";
  const focal = fixed(camera.focal_length_mm, camera.focal_length_mm < 10 ? 1 : 0);
  return `${focal} mm${cropped} · f/${camera.f_number} · 1/${Math.round(1 / camera.shutter_s)} · ISO ${camera.iso} · ${camera.white_balance_k} K`;
}
