// A lamp without figures, or with figures that nobody trusts: how to measure it with a phone.
import { useState } from "react";

import type { Gear } from "../api/client";
import { limits } from "../api/limits";
import { formatLength, type UnitSystem } from "../units/length";
import { FigureBox, OptionalBox } from "../ui/boxes";

interface Props {
  thing: Extract<Gear, { kind: "light" }>;
  units: UnitSystem;
  onFigures: (figures: Record<string, unknown>) => void;
}

export function MeasuredLamp({ thing, units, onFigures }: Props) {
  // A distance alone is no measurement: it waits here until something is read there.
  const [distance, setDistance] = useState<number | null>(null);
  const at = thing.measured_at_m ?? distance;
  return (
    <details className="mt-2">
      <summary className="min-h-6 cursor-pointer text-sm font-semibold">Measure it with a lux meter</summary>
      <ol className="mt-2 list-decimal space-y-1 pl-5 text-sm">
        <li>After dark, everything else off; the modifier on, the lamp at full power for two minutes.</li>
        <li>
          Mark a point straight in front of the middle of its face, {formatLength(1, units, 0)} away or as far
          as you use it.
        </li>
        <li>Hold the meter, or the phone with its meter, there and facing the lamp; stand aside yourself.</li>
        <li>Read three times and take the middle one. A phone is good to about a third of a stop.</li>
      </ol>
      <div className="mt-2 grid gap-3 sm:grid-cols-3">
        <FigureBox
          label="Distance from its face"
          unit="m"
          units={units}
          without="not measured"
          within={limits["GearLight.measured_at_m"]}
          value={at}
          onCommit={(measured_at_m) => {
            setDistance(measured_at_m);
            if (measured_at_m === null) onFigures({ measured_at_m, measured_lx: null });
            else if (thing.measured_lx != null) onFigures({ measured_at_m });
          }}
        />
        <OptionalBox
          label="Read there"
          unit="lx"
          digits={0}
          step={10}
          without="not measured"
          within={limits["GearLight.measured_lx"]}
          value={thing.measured_lx ?? null}
          onCommit={(measured_lx) =>
            onFigures(
              measured_lx === null
                ? { measured_lx, measured_at_m: null }
                : { measured_lx, measured_at_m: at ?? 1 },
            )
          }
        />
      </div>
      <p className="text-faint mt-1 text-sm">Never look into the lamp.</p>
    </details>
  );
}
