// The camera's settings, typed exactly, and the move that frames the shot from where the camera stands.
import type { Plan } from "../api/client";
import { limits } from "../api/limits";
import { withCamera } from "../table/edits";
import { useTable } from "../table/useTable";
import type { UnitSystem } from "../units/length";
import { LengthBox, NumberBox } from "../ui/boxes";
import { Button } from "../ui/button";
import { Section } from "../ui/Section";

export function CameraSettings({ plan, units }: { plan: Plan; units: UnitSystem }) {
  const table = useTable();
  const { camera } = plan.layout;
  const set = (change: Parameters<typeof withCamera>[1]) => table.edit((p) => withCamera(p, change));
  const locked = camera.locked ?? false;
  return (
    <Section
      title="Camera settings"
      aside={
        <Button
          size="small"
          disabled={locked}
          onClick={() => void table.put({ thing: "camera", grip: "frame" }).catch(() => undefined)}
        >
          Frame the shot from here
        </Button>
      }
    >
      <div className="grid grid-cols-2 items-end gap-x-3 gap-y-2 sm:grid-cols-3">
        <NumberBox
          label="Focal length"
          unit="mm"
          value={camera.focal_length_mm}
          within={limits["Camera.focal_length_mm"]}
          onCommit={(focal_length_mm) => set({ focal_length_mm })}
        />
        <NumberBox
          label="f-number"
          value={camera.f_number}
          within={limits["Camera.f_number"]}
          step={0.1}
          onCommit={(f_number) => set({ f_number })}
        />
        <NumberBox
          label="Shutter"
          unit="1/s"
          value={1 / camera.shutter_s}
          within={[1, 16000]}
          digits={0}
          onCommit={(per_s) => set({ shutter_s: 1 / per_s })}
        />
        <NumberBox
          label="ISO"
          value={camera.iso}
          within={limits["Camera.iso"]}
          digits={0}
          step={100}
          onCommit={(iso) => set({ iso })}
        />
        <NumberBox
          label="Neutral density"
          unit="stops"
          value={camera.nd_stops ?? 0}
          within={limits["Camera.nd_stops"]}
          onCommit={(nd_stops) => set({ nd_stops })}
        />
        <NumberBox
          label="White balance"
          unit="K"
          value={camera.white_balance_k}
          within={limits["Camera.white_balance_k"]}
          digits={0}
          step={100}
          onCommit={(white_balance_k) => set({ white_balance_k })}
        />
        <LengthBox
          label="Focus distance"
          value={camera.focus_distance_m}
          units={units}
          within={limits["Camera.focus_distance_m"]}
          onCommit={(focus_distance_m) => set({ focus_distance_m })}
        />
        <NumberBox
          label="Bearing"
          unit="°"
          value={camera.bearing_deg}
          within={[0, 359.99]}
          disabled={locked}
          onCommit={(bearing_deg) => set({ bearing_deg })}
        />
        <NumberBox
          label="Tilt"
          unit="°"
          value={camera.tilt_deg}
          within={limits["Camera.tilt_deg"]}
          step={0.5}
          disabled={locked}
          onCommit={(tilt_deg) => set({ tilt_deg })}
        />
      </div>
    </Section>
  );
}
