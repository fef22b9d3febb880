// Doors and windows as typed, and the openings they make.
import { z } from "zod";

import type { Schemas } from "../api/client";
import { freeId } from "../units/ids";
import { editLength, type UnitSystem } from "../units/length";
import { within, type readers } from "../units/typed";

type Opening = Schemas["Opening"];

export interface OpeningText {
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
  taken: readonly OpeningText[],
  units: UnitSystem,
): OpeningText {
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

export const openingsTyped = (room: Schemas["Room"], units: UnitSystem): OpeningText[] =>
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

/** What the texts of an opening stand for. A door has no sill, whatever stands there. */
export const openingRead = ({ length, text }: ReturnType<typeof readers>) => {
  const shared = {
    id: z.string(),
    wall: z.string(),
    from: length(within("Opening.from_m")),
    width: length(within("Opening.width_m")),
    swing: z.string(),
  };
  return z.discriminatedUnion("kind", [
    z.object({ ...shared, kind: z.literal("door"), sill: text, height: text }),
    z.object({
      ...shared,
      kind: z.literal("window"),
      sill: length(within("Opening.sill_m")),
      height: length(within("Opening.height_m")),
    }),
  ]);
};

type Read = z.output<ReturnType<typeof openingRead>>;

/** The openings as read, over what else was known of them. */
export function openingsOf(
  openings: readonly Read[],
  known: Record<string, Opening>,
): Record<string, Opening> {
  return Object.fromEntries(
    openings.map((read) => {
      const before = known[read.id];
      const own =
        read.kind === "door"
          ? { swing: read.swing as Schemas["Swing"] }
          : { sill_m: read.sill, height_m: read.height };
      return [
        read.id,
        {
          ...(before?.kind === read.kind ? before : {}),
          kind: read.kind,
          wall: Number(read.wall),
          from_m: read.from,
          width_m: read.width,
          ...own,
        },
      ];
    }),
  );
}
