// Doors and windows as typed, and the openings they make.
import type { Schemas } from "../api/client";
import { editLength, type UnitSystem } from "../units/length";
import { freeId } from "../ui/ids";
import { within, type Reader } from "./reader";

type Opening = Schemas["Opening"];

export interface OpeningDraft {
  id: string;
  kind: Opening["kind"];
  wall: string;
  from: string;
  width: string;
  /** How a door opens. */
  swing: string;
  /** Lower edge and height of a window. */
  sill: string;
  height: string;
}

/** As many as a room may have. */
export const MOST_OPENINGS = 24;

/** A usual door or window (common practice, no source), in a wall that has none yet. */
export function newOpening(
  kind: Opening["kind"],
  taken: readonly OpeningDraft[],
  units: UnitSystem,
): OpeningDraft {
  const text = (metres: number) => editLength(metres, units);
  const door = kind === "door";
  const usual = door ? "1" : "3";
  const free = [usual, "0", "2", "1", "3"].find((wall) => taken.every((other) => other.wall !== wall));
  return {
    id: freeId(
      kind,
      taken.map((other) => other.id),
    ),
    kind,
    wall: free ?? usual,
    from: text(door ? 0.1 : 0.8),
    width: text(door ? 0.8 : 1.2),
    swing: "in-left",
    sill: text(0.9),
    height: text(1.2),
  };
}

export const openingsTyped = (room: Schemas["Room"], units: UnitSystem): OpeningDraft[] =>
  Object.entries(room.openings ?? {}).map(([id, o]) => ({
    id,
    kind: o.kind,
    wall: String(o.wall),
    from: editLength(o.from_m, units),
    width: editLength(o.width_m, units),
    swing: o.swing ?? "in-left",
    sill: editLength(o.sill_m ?? 0.9, units),
    height: editLength(o.height_m ?? 1.2, units),
  }));

/** The openings as read, over what else was known of them. */
export function openingsOf(
  openings: readonly OpeningDraft[],
  read: Reader,
  known: Record<string, Opening>,
): Record<string, Opening> {
  return Object.fromEntries(
    openings.map((opening, index) => {
      const length = (name: "from" | "width" | "sill" | "height") =>
        read.length(`openings.${index}.${name}`, within(`Opening.${name}_m`), opening[name].trim());
      const before = known[opening.id];
      return [
        opening.id,
        {
          ...(before?.kind === opening.kind ? before : {}),
          kind: opening.kind,
          wall: Number(opening.wall),
          from_m: length("from"),
          width_m: length("width"),
          ...(opening.kind === "door"
            ? { swing: opening.swing as Schemas["Swing"] }
            : { sill_m: length("sill"), height_m: length("height") }),
        },
      ];
    }),
  );
}
