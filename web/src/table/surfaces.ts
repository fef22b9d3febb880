// How the walls are done up.
import type { Plan, Schemas } from "../api/client";

type Surface = Schemas["Surface"];

/** What is in a room, in one word: how it sounds follows from it where nobody told more. */
export const FURNISHINGS = [
  ["", "I do not know yet"],
  ["bare", "Bare: hard walls and floor, hardly anything in it"],
  ["some", "Some soft things: a rug, curtains or a bed"],
  ["much", "Much: carpet, heavy curtains, a sofa, full shelves"],
] as const;

/** A surface told anew; what is null is no longer told, and a surface of which nothing is told is left out. */
export function withSurface(
  plan: Plan,
  id: string,
  change: { [K in keyof Surface]?: Surface[K] | null },
): Plan {
  const told = Object.entries({ ...plan.brief.room.surfaces?.[id], ...change }).filter(
    ([field, value]) => value !== null && !(field === "look" && value === "plain"),
  );
  const surfaces = { ...plan.brief.room.surfaces };
  if (told.length === 0) Reflect.deleteProperty(surfaces, id);
  else surfaces[id] = Object.fromEntries(told);
  return { ...plan, brief: { ...plan.brief, room: { ...plan.brief.room, surfaces } } };
}
