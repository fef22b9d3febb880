// The first run: fifteen answers on seven pages, in the order of the work. Gear is told by its kind; the figures of
// the usual thing of that kind stand in and are marked as assumed. Figures are typical ones, common practice, no source.
import { newDraft, type Draft } from "../brief/draft";
import { FURNISHINGS } from "../room/surfaces";
import { unitTold, type UnitSystem } from "../units/length";

export interface Question {
  id: string;
  label: string;
  help?: string;
  /** Choices; without them it is typed. */
  options?: readonly (readonly [string, string])[];
  placeholder?: string;
}

export interface Page {
  title: string;
  lead: string;
  questions: Question[];
}

const WALLS = [
  ["0", "Back wall"],
  ["1", "Right wall"],
  ["2", "Front wall"],
  ["3", "Left wall"],
] as const;

export const PAGES: Page[] = [
  {
    title: "Room",
    lead: "With a tape, wall to wall. The back wall is whichever you like; it lies at the bottom of the drawing.",
    questions: [
      { id: "width", label: "Width, along the back wall", placeholder: "3.40 m or 11' 2\"" },
      { id: "depth", label: "Depth, back to front", placeholder: "2.90 m" },
      { id: "height", label: "Ceiling height" },
      { id: "door", label: "Door", options: [...WALLS, ["none", "No door"]] },
    ],
  },
  {
    title: "You",
    lead: "Who is filmed. Your height decides where eyes, lens and microphone go.",
    questions: [
      { id: "stature", label: "Your height", placeholder: "1.72 m or 5' 8\"" },
      {
        id: "where",
        label: "Where you talk",
        options: [
          ["desk", "Seated at a desk"],
          ["chair", "Seated, no desk"],
          ["standing", "Standing"],
        ],
      },
    ],
  },
  {
    title: "Shot",
    lead: "What the recording is for decides the frame; the camera decides how far away it stands.",
    questions: [
      {
        id: "purpose",
        label: "What it is for",
        options: [
          ["talk-to-lens", "Talking to the lens: lesson or channel"],
          ["audition-tape", "Audition or application tape"],
          ["vertical-short", "Vertical short"],
          ["screen-lesson", "Narrated screen lesson"],
          ["performance", "Performance with an instrument"],
          ["keyed-background", "Before a keyed background"],
        ],
      },
      {
        id: "camera",
        label: "Camera",
        help: "Fogon assumes a tripod (for a webcam, the desk) and a stand for each lamp. You can remove them later.",
        options: [
          ["phone", "Phone"],
          ["phone-two", "Phone with a second, 2× lens"],
          ["webcam", "Webcam on the desk"],
          ["compact", "Compact with zoom"],
          ["aps-c", "APS-C with a zoom"],
          ["full-frame", "Full frame with a zoom"],
        ],
      },
    ],
  },
  {
    title: "Light",
    lead: "The lamps you own. Without any, leave them out: what to buy comes later.",
    questions: [
      {
        id: "key",
        label: "Main light",
        options: [
          ["softbox", "Softbox or umbrella, about 65 cm"],
          ["panel", "LED panel, about 30 × 20 cm"],
          ["bulb", "Desk lamp or bare bulb"],
          ["none", "None yet"],
        ],
      },
      {
        id: "fill",
        label: "To open the shadows",
        options: [
          ["board", "White board or foam board"],
          ["lamp", "A second lamp"],
          ["none", "Nothing"],
        ],
      },
      {
        id: "back",
        label: "A small light from behind",
        options: [
          ["yes", "Yes"],
          ["no", "No"],
        ],
      },
    ],
  },
  {
    title: "Day",
    lead: "Windows change by the hour. Fogon counts them as shut out and keeps them out of the picture.",
    questions: [{ id: "window", label: "Largest window", options: [...WALLS, ["none", "No window"]] }],
  },
  {
    title: "Sound",
    lead: "Listeners leave bad sound sooner than a bad picture.",
    questions: [
      {
        id: "furnishing",
        label: "What is in the room",
        help: "Soft things take the echo out of a room.",
        options: FURNISHINGS,
      },
      {
        id: "microphone",
        label: "Microphone",
        options: [
          ["boom", "On a boom or arm"],
          ["lavalier", "Clipped on (lavalier)"],
          ["desk", "On the desk"],
          ["headset", "Headset"],
          ["on-camera", "On the camera"],
          ["built-in", "The camera's own"],
        ],
      },
    ],
  },
  {
    title: "Money",
    lead: "What you could spend now. Moves that cost nothing come first anyway.",
    questions: [{ id: "budget", label: "To spend" }],
  },
];

export const ANSWERS = PAGES.flatMap((page) => page.questions).length;

/** Answers that have no default. */
export const NEEDED = ["width", "depth", "stature"];

/** What stands where no answer is given. */
export const DEFAULTS: Record<string, string> = {
  units: "metric",
  width: "",
  depth: "",
  height: "2.40 m",
  door: "1",
  stature: "",
  where: "desk",
  purpose: "talk-to-lens",
  camera: "aps-c",
  key: "softbox",
  fill: "board",
  back: "yes",
  window: "3",
  furnishing: "",
  microphone: "boom",
  budget: "0",
};

/** What stands where one question is not answered. */
export const defaultOf = (id: string, answers: Record<string, string>): string =>
  id === "height" && answers.units === "imperial" ? "8' 0\"" : (DEFAULTS[id] ?? "");

/** Answers that are lengths. */
const LENGTHS = ["width", "depth", "height", "stature"];

/** The answers read in the other units from now on; a bare number keeps the unit it was typed in. */
export function inUnits(answers: Record<string, string>, before: UnitSystem): Record<string, string> {
  const isLength = (id: string) => LENGTHS.includes(id) || /^today.*[XYZ]$/.test(id);
  const told = Object.entries(answers).map(([id, text]): [string, string] => [
    id,
    isLength(id) ? unitTold(text, before) : text,
  ]);
  return { ...Object.fromEntries(told), units: before === "metric" ? "imperial" : "metric" };
}

/** Format, focal range, f-numbers and greatest ISO of the usual camera of a kind. */
const CAMERAS: Record<string, Record<string, string>> = {
  phone: {
    format: "phone-large",
    focalMin: "6.5",
    focalMax: "6.5",
    fMin: "1.8",
    fMax: "1.8",
    nearest: "0.15 m",
    isoMax: "6400",
  },
  "phone-two": {
    format: "phone-large",
    focalMin: "6.5",
    focalMax: "13",
    fMin: "1.8",
    fMax: "1.8",
    nearest: "0.15 m",
    isoMax: "6400",
  },
  webcam: {
    format: "webcam",
    focalMin: "4.9",
    focalMax: "4.9",
    fMin: "2.0",
    fMax: "2.0",
    nearest: "0.10 m",
    isoMax: "3200",
    tripods: "0",
  },
  compact: {
    format: "one-inch",
    focalMin: "8.8",
    focalMax: "25.7",
    fMin: "1.8",
    fMax: "2.8",
    nearest: "0.20 m",
    isoMax: "12800",
  },
  "aps-c": {
    format: "aps-c",
    focalMin: "16",
    focalMax: "50",
    fMin: "2.8",
    fMax: "2.8",
    nearest: "0.30 m",
    isoMax: "25600",
  },
  "full-frame": {
    format: "full-frame",
    focalMin: "24",
    focalMax: "70",
    fMin: "2.8",
    fMax: "2.8",
    nearest: "0.38 m",
    isoMax: "51200",
  },
};

const KEYS: Record<string, Record<string, string>> = {
  softbox: { key: "octagon", keyWidth: "65 cm", keyLux: "2600", keyWatts: "60" },
  panel: { key: "rectangle", keyWidth: "30 cm", keyHeight: "20 cm", keyLux: "1200", keyWatts: "30" },
  bulb: { key: "bulb", keyWidth: "6 cm", keyLux: "90", keyWatts: "11" },
  none: { key: "none" },
};

/** How the corner stands today, as typed at the second door; empty where it was not. */
export const TODAY_FIELDS = [
  "todayX",
  "todayY",
  "todayLensX",
  "todayLensY",
  "todayLensZ",
  "todayFocal",
  "todayF",
  "todayKeyX",
  "todayKeyY",
  "todayKeyZ",
  "todayMicX",
  "todayMicY",
  "todayMicZ",
] as const;

/** The full answers that a first run stands for. */
export function draftFrom(answers: Record<string, string>, standing: boolean): Draft {
  const told = (id: string) => answers[id] ?? defaultOf(id, answers);
  const draft = newDraft(answers.units === "imperial" ? "imperial" : "metric");
  const lamps = Number(told("key") !== "none") + Number(told("fill") === "lamp");
  const where = told("where");
  Object.assign(
    draft.texts,
    {
      units: told("units"),
      name: answers.name ?? "",
      width: told("width"),
      depth: told("depth"),
      height: told("height"),
      stature: told("stature"),
      posture: where === "standing" ? "standing" : "seated",
      seatAt: where === "desk" ? "desk" : "",
      purpose: told("purpose"),
      fill: told("fill"),
      back: told("back"),
      furnishing: told("furnishing"),
      microphone: told("microphone"),
      budget: told("budget"),
      lightStands: String(Math.max(lamps, told("fill") === "board" ? lamps + 1 : lamps)),
      boomStands: told("back") === "yes" ? "1" : "0",
      microphoneStands: told("microphone") === "boom" ? "1" : "0",
      today: standing ? "yes" : "no",
    },
    CAMERAS[told("camera")],
    KEYS[told("key")],
    Object.fromEntries(TODAY_FIELDS.map((field) => [field, answers[field] ?? ""])),
  );
  // A new draft brings a desk.
  if (where !== "desk") draft.furniture = [];
  draft.openings = draft.openings
    .filter(({ kind }) => told(kind) !== "none")
    .map((opening) => ({ ...opening, wall: told(opening.kind) }));
  draft.figuresAssumed = true;
  return draft;
}

/** The first-run question behind a field of the full answers. */
export function questionOf(field: string): string {
  if (field.startsWith("focal") || field.startsWith("f") || field === "nearest")
    return field === "fill" ? "fill" : "camera";
  if (field.startsWith("key")) return "key";
  return field;
}
