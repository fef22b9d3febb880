// What is marked in a still: where each mark begins, and what of it is sent.
import type { Schemas } from "../api/client";

export type Place = [number, number];

/** Marks by name; two ends of an edge and two corners of a box are marks of their own. */
export type Placed = Partial<Record<MarkName, Place>>;

export const MARKS = {
  crown: "Top of the head",
  eyes: "Between the eyes",
  chin: "Tip of the chin",
  shoulder: "End of a shoulder",
  edgeTop: "Upright edge, upper end",
  edgeBottom: "Upright edge, lower end",
  otherTop: "Second edge, upper end",
  otherBottom: "Second edge, lower end",
  grey: "Grey card",
  neutral: "Something white or grey",
  background: "Wall behind you",
  screenFrom: "Screen, one corner",
  screenTo: "Screen, other corner",
} as const;
export type MarkName = keyof typeof MARKS;

/** Marks that come and go together. */
export const GROUPS = {
  edge: ["edgeTop", "edgeBottom"],
  other: ["otherTop", "otherBottom"],
  grey: ["grey"],
  neutral: ["neutral"],
  background: ["background"],
  screen: ["screenFrom", "screenTo"],
} as const satisfies Record<string, readonly MarkName[]>;
export type GroupName = keyof typeof GROUPS;

export const GROUP_WORDS: Record<GroupName, string> = {
  edge: "An upright edge at the side",
  other: "A second upright edge",
  grey: "A grey card",
  neutral: "Something white or grey",
  background: "The wall behind you",
  screen: "The keyed screen",
};

/** Where a mark is put before it is moved. */
const BEGIN: Partial<Record<MarkName, Place>> = {
  edgeTop: [0.1, 0.2],
  edgeBottom: [0.1, 0.8],
  otherTop: [0.9, 0.2],
  otherBottom: [0.9, 0.8],
  grey: [0.62, 0.62],
  neutral: [0.66, 0.7],
  background: [0.2, 0.3],
  screenFrom: [0.05, 0.05],
  screenTo: [0.25, 0.6],
};

const inside = (part: number) => Math.min(1, Math.max(0, part));
export const within = ([x, y]: readonly number[]): Place => [inside(x ?? 0), inside(y ?? 0)];

/** The marks on the person, where the plan has them. */
export function planned(of: Schemas["PlannedMarks"] | undefined): Placed {
  return {
    crown: within(of?.crown ?? [0.5, 0.15]),
    eyes: within(of?.eyes ?? [0.5, 0.35]),
    chin: within(of?.chin ?? [0.5, 0.5]),
    shoulder: within(of?.shoulders[1] ?? [0.7, 0.7]),
  };
}

/** Adds the marks of a group, or takes them away. */
export function withGroup(placed: Placed, group: GroupName, isOn: boolean): Placed {
  const names: readonly MarkName[] = GROUPS[group];
  const rest = Object.fromEntries(
    Object.entries(placed).filter(([name]) => !names.includes(name as MarkName)),
  ) as Placed;
  return isOn ? { ...rest, ...Object.fromEntries(names.map((name) => [name, BEGIN[name]])) } : rest;
}

/** What is sent. */
export function sentMarks(placed: Placed): Schemas["Marks"] {
  const at = (name: MarkName): Place => placed[name] ?? [0.5, 0.5];
  const edge = (top: MarkName, bottom: MarkName) =>
    placed[top] && placed[bottom] ? [[at(top), at(bottom)]] : [];
  return {
    crown: at("crown"),
    eyes: at("eyes"),
    chin: at("chin"),
    shoulder: at("shoulder"),
    edges: [...edge("edgeTop", "edgeBottom"), ...edge("otherTop", "otherBottom")],
    grey: placed.grey ?? null,
    neutral: placed.neutral ?? null,
    background: placed.background ?? null,
    screen: placed.screenFrom && placed.screenTo ? [placed.screenFrom, placed.screenTo] : null,
  };
}
