// The pages of the answers, and which fields stand on each.
import { MoneyFields, GearFields, PurposeFields, TodayFields, YouFields } from "./OtherFields";
import { RoomFields } from "./RoomFields";
import type { Answers } from "./answers";

interface Page {
  title: string;
  lead: string;
  fields: readonly (keyof Answers)[];
  Fields: React.ComponentType;
}

export const PAGES: readonly Page[] = [
  {
    title: "Room",
    lead: "Measure with a tape, wall to wall. Lengths in metres or feet and inches, mixed as you like.",
    fields: [
      "name",
      "units",
      "shape",
      "width",
      "depth",
      "height",
      "furnishing",
      "volts",
      "hertz",
      "breaker",
      "legs",
      "floor",
      "slopes",
      "beams",
      "openings",
      "furniture",
    ],
    Fields: RoomFields,
  },
  {
    title: "You",
    lead: "Who is filmed, and where they sit.",
    fields: ["stature", "posture", "seatHeight", "eyeHeight", "lean", "seatAt", "glasses"],
    Fields: YouFields,
  },
  {
    title: "Purpose",
    lead: "What the recording is for decides shot, eyes and background.",
    fields: ["purpose", "schools"],
    Fields: PurposeFields,
  },
  {
    title: "What you own",
    lead: "Kinds and figures; names do not matter. Lamps as you use them, with the modifier on.",
    fields: ["gear"],
    Fields: GearFields,
  },
  {
    title: "Today",
    lead: "If something is set up already, free moves start from there. Left and back wall as in the drawing.",
    fields: ["today", "seat", "lens", "key", "microphone", "focal", "fNumber", "iso"],
    Fields: TodayFields,
  },
  {
    title: "Money",
    lead: "What you could spend. Free moves come first anyway.",
    fields: ["budget", "currency"],
    Fields: MoneyFields,
  },
];
