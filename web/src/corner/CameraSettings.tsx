// The camera's settings, typed exactly, and the zoom that frames the shot from where it stands.
import type { Plan } from "../api/client";
import { limits } from "../api/limits";
import type { UnitSystem } from "../units/length";
import { LengthBox, NumberBox } from "../ui/boxes";
import { withCamera } from "./edits";
import type { Table } from "./useWorktable";

export function CameraSettings({ plan, table, units }: { plan: Plan; table: Table; units: UnitSystem }) {
  const { camera } = plan.layout;
  const set = (change: Parameters<typeof withCamera>[1]) => table.edit((p) => withCamera(p, change));
  const locked = camera.locked ?? false;
  return (
    <section aria-labelledby="settings">
      <h3 id="settings" className="subheading">
        Settings
      </h3>
      <div className="boxes">
        <NumberBox
          label="Focal length"
          unit="mm"
          value={camera.focal_length_mm}
          within={limits["Camera.focal_length_mm"]}
          onCommit={(v) => set({ focal_length_mm: v })}
        />
        <NumberBox
          label="f-number"
          value={camera.f_number}
          within={limits["Camera.f_number"]}
          step={0.1}
          onCommit={(v) => set({ f_number: v })}
        />
        <NumberBox
          label="Shutter"
          unit="1/s"
          value={1 / camera.shutter_s}
          within={[1, 16000]}
          digits={0}
          onCommit={(v) => set({ shutter_s: 1 / v })}
        />
        <NumberBox
          label="ISO"
          value={camera.iso}
          within={limits["Camera.iso"]}
          digits={0}
          step={100}
          onCommit={(v) => set({ iso: v })}
        />
        <NumberBox
          label="Neutral density"
          unit="stops"
          value={camera.nd_stops ?? 0}
          within={limits["Camera.nd_stops"]}
          onCommit={(v) => set({ nd_stops: v })}
        />
        <NumberBox
          label="White balance"
          unit="K"
          value={camera.white_balance_k}
          within={limits["Camera.white_balance_k"]}
          digits={0}
          step={100}
          onCommit={(v) => set({ white_balance_k: v })}
        />
        <LengthBox
          label="Focus distance"
          value={camera.focus_distance_m}
          units={units}
          within={limits["Camera.focus_distance_m"]}
          onCommit={(v) => set({ focus_distance_m: v })}
        />
        <NumberBox
          label="Aim"
          term="Bearing"
          unit="°"
          value={camera.bearing_deg}
          within={[0, 359.99]}
          disabled={locked}
          onCommit={(v) => set({ bearing_deg: v })}
        />
        <NumberBox
          label="Tilt"
          unit="°"
          value={camera.tilt_deg}
          within={limits["Camera.tilt_deg"]}
          step={0.5}
          disabled={locked}
          onCommit={(v) => set({ tilt_deg: v })}
        />
      </div>
      <button
        type="button"
        className="button mt-3"
        disabled={locked}
        onClick={() => void table.move({ thing: "camera", grip: "frame" }, null, false)}
      >
        Frame the shot from here
      </button>
    </section>
  );
}
