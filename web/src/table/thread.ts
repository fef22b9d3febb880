// The order of the work: eight steps, each with its state and the number that tells most.
import type { Brief, Finding, Handle, Judged, Layout, Reading } from "../api/client";
import { fixed, formatLength, type UnitSystem } from "../units/length";

export const STEPS = [
  ["room", "Room"],
  ["you", "You"],
  ["shot", "Shot"],
  ["light", "Light"],
  ["day", "Day"],
  ["sound", "Sound"],
  ["money", "Money"],
  ["card", "Card"],
] as const;

export type Step = (typeof STEPS)[number][0];
export type State = "good" | "stop" | "fix" | "consider" | "open";

/** The step in which each field of a layout is decided; a new field does not compile without one. */
const STEP_OF: Record<keyof Layout, Step> = {
  seat: "you",
  camera: "shot",
  lights: "light",
  microphone: "sound",
  screen: "shot",
  backdrop: "room",
  angles: "shot",
  treatment: "sound",
  furniture: "room",
};

/** The step that a thing belongs to, by where the layout holds it: people may call a light what they like. */
export function stepOfThing(name: string, handles: Handle[]): Step {
  if (name === "person") return "you";
  const field = handles.find((handle) => handle.id === name)?.pointer.split("/")[1];
  return STEP_OF[field as keyof Layout] ?? "room";
}

/** The step that a finding or reading belongs to, by its id. */
export function stepOf(id: string, handles: Handle[]): Step {
  const [first = "", second = "", ...rest] = id.split(".");
  if (first === "legal") return second === "exit" ? "you" : stepOfThing(rest.join("."), handles);
  // Numbers of a stand go with what it carries.
  if (first === "room" || first === "support") return stepOfThing(second, handles);
  if (first === "daylight") return "day";
  if (first === "person" || id === "shot.seat.gaze_deg") return "you";
  // What is missing for a thing is told under that thing's own name: `microphone.xlr-input.missing`.
  return STEPS.some(([step]) => step === first) ? (first as Step) : stepOfThing(first, handles);
}

export const readingsOf = (step: Step, readings: Reading[], handles: Handle[]): Reading[] =>
  readings.filter((r) => stepOf(r.id, handles) === step);

/** The second word of a reading's id, and what its group is called. */
const GROUPS: Partial<Record<Step, [string, string[]][]>> = {
  light: [
    ["Key", ["key"]],
    ["Face", ["face", "power", "monitor"]],
    ["Behind", ["back", "background", "screen"]],
  ],
  shot: [
    ["Frame", ["frame"]],
    ["Distance and lens", ["camera", "lens", "school"]],
    ["Focus and background", ["focus", "background"]],
    ["Exposure", ["exposure", "insert"]],
    ["Recording and cloth", ["recording", "cloth"]],
    ["Seeing yourself", ["screen", "script"]],
  ],
};

/** A step's readings in groups, those with a band first; one group without a name where it has few. */
export function groupsOf(step: Step, readings: Reading[]): [string, Reading[]][] {
  const groups = GROUPS[step];
  const banded = (own: Reading[]) => [...own.filter((r) => r.band), ...own.filter((r) => !r.band)];
  if (!groups) return [["", readings]];
  const named = groups.map(([name, words]): [string, Reading[]] => [
    name,
    banded(readings.filter((r) => r.id.startsWith(`${step}.`) && words.includes(r.id.split(".")[1] ?? ""))),
  ]);
  const rest = readings.filter((r) => named.every(([, own]) => !own.includes(r)));
  const stands = rest.filter((r) => r.id.startsWith("room."));
  const angles = rest.filter((r) => !stands.includes(r));
  const all: [string, Reading[]][] = [
    ...named,
    [step === "shot" ? "What second angles show" : "Other lights", angles],
    ["Stands", stands],
  ];
  return all.filter(([, own]) => own.length > 0);
}

export const findingsOf = (step: Step, findings: Finding[], handles: Handle[]): Finding[] =>
  findings.filter((f) => stepOf(f.id, handles) === step);

export const handlesOf = (step: Step, handles: Handle[]): Handle[] =>
  handles.filter((h) => stepOfThing(h.id, handles) === step);

export interface Knot {
  step: Step;
  title: string;
  state: State;
  headline: string;
}

const WORST: Finding["severity"][] = ["stop", "fix", "consider"];

/** All steps with state and headline. */
export function knots(brief: Brief, layout: Layout, judged: Judged): Knot[] {
  const units = brief.units ?? "metric";
  const { findings, readings } = judged.assessment;
  return STEPS.map(([step, title]) => {
    const own = findingsOf(step, findings, judged.handles);
    const worst = WORST.find((severity) => own.some((f) => f.severity === severity));
    return {
      step,
      title,
      state: step === "card" ? (judged.assessment.verdict.ready ? "good" : "open") : (worst ?? "good"),
      headline: headline(step, brief, layout, readings, judged, units),
    };
  });
}

function headline(
  step: Step,
  brief: Brief,
  layout: Layout,
  readings: Reading[],
  judged: Judged,
  units: UnitSystem,
): string {
  const value = (id: string) => readings.find((r) => r.id === id)?.value ?? null;
  const length = (id: string) => {
    const metres = value(id);
    return metres === null ? null : formatLength(metres, units);
  };
  const joined = (...parts: (string | null)[]) => parts.filter((p) => p !== null).join(", ");
  switch (step) {
    case "room": {
      const [width, depth] = [0, 1].map((axis) =>
        Math.max(...brief.room.floor_m.map((p) => p[axis] ?? 0)),
      ) as [number, number];
      return `${formatLength(width, units)} × ${formatLength(depth, units)}`;
    }
    case "you":
      return joined(formatLength(brief.person.stature_m, units), brief.person.posture);
    case "shot":
      return `${fixed(layout.camera.focal_length_mm, 0)} mm at ${length("shot.camera.distance_m") ?? "–"}`;
    case "light": {
      const [angle, ratio] = [value("light.key.azimuth_deg"), value("light.face.ratio")];
      if (angle === null && ratio === null) return "no light";
      return joined(
        angle === null ? "no key" : `${fixed(angle, 0)}°`,
        ratio === null ? null : `${fixed(ratio, 1)} : 1`,
      );
    }
    case "day":
      return dayWords(brief);
    case "sound": {
      const time = value("sound.room.rt_mid_s");
      // What nobody told is told as a range here as in the findings.
      const range = readings.find((r) => r.id === "sound.room.rt_mid_s")?.assumed_range;
      return joined(
        length("sound.microphone.distance_m") ?? "no microphone",
        range
          ? `${fixed(range[0] ?? 0, 1)} to ${fixed(range[1] ?? 0, 1)} s`
          : time === null
            ? null
            : `${fixed(time, 2)} s`,
      );
    }
    case "money":
      return `${fixed(brief.money?.budget ?? 0, 0)} ${brief.money?.currency ?? ""}`.trim() + " to spend";
    case "card":
      return `${judged.handles.filter((handle) => handle.letter !== "").length} marks`;
  }
}

/** Whether the windows count as lamps: where one is the key, or nothing else shines. */
export const windowsShine = ({ schools }: Brief): boolean =>
  schools?.window === "key" || schools?.lights === "window-only";

/** What is done about the windows. */
export function dayWords(brief: Brief): string {
  const windows = Object.values(brief.room.openings ?? {}).filter((o) => o.kind === "window").length;
  if (windows === 0) return "no window";
  const done = windowsShine(brief) ? "let in" : "shut out";
  return windows === 1 ? `1 window, ${done}` : `${windows} windows, ${done}`;
}
