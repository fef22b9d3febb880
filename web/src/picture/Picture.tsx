// The picture as the camera takes it: one component for every place where it is shown, large or docked.
import { useCallback, useState } from "react";

import type { Judged, Plan } from "../api/client";
import type { Frame, View, Viewer } from "../api/viewer";
import { useSunlight } from "../drawing/sunlight";
import { Show } from "../ui/dialog";
import { handOut, stemOf } from "../ui/download";
import { fixed } from "../units/length";
import { Eyes } from "./Eyes";
import { joined } from "./joined";
import { Menu } from "./Menu";
import { useOptions } from "./options";
import { Photo } from "./Photo";
import { Readout } from "./Readout";
import { settings } from "./settings";
import { signed } from "./signed";
import { useViewer } from "./useViewer";

interface Props {
  judged: Judged;
  plan: Plan;
  /** Docked: small, without guides to switch. */
  size: "large" | "docked";
  /** Not taller than this length of CSS, where it is large. */
  tallest?: string;
}

/** Pixels across of what is taken. */
const WIDTH_PX = { large: 960, docked: 480 };

export function Picture({ judged, plan, size, tallest = "27vh" }: Props) {
  const [options, change] = useOptions();
  const docked = size === "docked";
  const overlay = docked ? "none" : options.overlay;
  const { looked } = useSunlight();
  const [viewer, view] = useViewer("worktable", plan, WIDTH_PX[size], overlay, !options.lines, looked?.hour);
  const [closer, setCloser] = useState(false);
  const onDrawn = useCallback((frame: Frame) => viewer.drawn(frame), [viewer]);
  const portrait = plan.layout.camera.orientation === "portrait";
  const frame = options.lines || view.trouble || view.slow_ms !== null ? null : view.frame;
  return (
    <figure className={`bg-surround min-w-0 rounded-lg text-white ${docked ? "p-1.5" : "p-2"}`}>
      <Photo
        frame={frame}
        view={judged.drawing.frame}
        title="The picture as the lens sees it"
        tallest={docked ? "7rem" : tallest}
        className={`${docked ? "bare" : ""} ${options.guides.map((guide) => `show-${guide}`).join(" ")}`}
        showsSpots={overlay === "stops"}
        onDrawn={onDrawn}
        onLook={docked ? undefined : (at) => viewer.look(at)}
      />
      <figcaption
        className={docked ? "mt-1 text-xs" : "mt-1.5 flex flex-wrap items-center gap-x-3 gap-y-1 text-xs"}
      >
        <span className={docked ? "" : "mr-auto"}>
          {looked ? looked.words : settings(plan)}
          {frame && !frame.last && <span role="status"> · getting finer</span>}
        </span>
        {!docked && !options.lines && <Instead view={view} onWait={() => viewer.wait()} />}
        {!docked && <Told frame={frame} view={view} viewer={viewer} />}
        {!docked && (
          <Menu
            options={options}
            onChange={change}
            portrait={portrait}
            onCloser={() => setCloser(true)}
            onSave={frame ? () => void save(frame, plan) : null}
          />
        )}
      </figcaption>
      <Show title="The eyes, close up" open={closer} onOpenChange={setCloser} wide>
        <Eyes plan={plan} view={judged.drawing.frame} width={960} tallest="60vh" />
      </Show>
    </figure>
  );
}

/** The picture as it stands, with its settings under it. */
async function save({ pixels, width, height }: Frame, plan: Plan): Promise<void> {
  const file = await joined([new ImageData(pixels, width, height)], [[plan.name, settings(plan)]]);
  handOut(file, `${stemOf(plan.name)}-picture.png`);
}

/** Why the line drawing stands in place of the photograph. */
function Instead({ view, onWait }: { view: View; onWait: () => void }) {
  if (view.slow_ms !== null)
    return (
      <span>
        A photograph takes {fixed(view.slow_ms / 1000, 0)} s on this machine: lines instead.{" "}
        <button type="button" className="min-h-6 cursor-pointer underline" onClick={onWait}>
          Take it all the same
        </button>
      </span>
    );
  return view.trouble && <span>{view.trouble.message}</span>;
}

/** What the picture tells of itself, or of the place that was pointed at. */
function Told({ frame, view, viewer }: { frame: Frame | null; view: View; viewer: Viewer }) {
  if (!frame) return null;
  if (view.looked) return <Readout looked={view.looked} onClose={() => viewer.look(null)} />;
  const { sides_stops: sides, clipped_percent: clipped } = frame.told;
  return (
    <span className="numeral">
      {sides ? `shadow side ${signed(sides[1])}, lit side ${signed(sides[0])} stops` : null}
      {clipped >= 0.05 ? ` · ${fixed(clipped, 1)} % burnt out` : null}
    </span>
  );
}
