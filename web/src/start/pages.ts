// The pages of the first run, in the order of the work, and what each asks.

export const WALLS = [
  ["0", "Back wall"],
  ["1", "Right wall"],
  ["2", "Front wall"],
  ["3", "Left wall"],
] as const;

export const PURPOSES = [
  ["talk-to-lens", "Talking to the lens: lesson or channel"],
  ["audition-tape", "Audition or application tape"],
  ["vertical-short", "Vertical short"],
  ["screen-lesson", "Narrated screen lesson"],
  ["performance", "Performance with an instrument"],
  ["keyed-background", "In front of a key screen"],
] as const;

export const PLACES_TO_TALK = [
  ["desk", "Seated at a desk"],
  ["chair", "Seated, no desk"],
  ["standing", "Standing"],
] as const;

export const PAGES = [
  {
    title: "Room",
    lead: "With a tape, wall to wall. The back wall is whichever you like; it lies at the bottom of the drawing.",
    fields: ["units", "width", "depth", "height", "openings", "furnishing"],
  },
  {
    title: "You",
    lead: "Who is filmed. Your height decides where eyes, lens and microphone go.",
    fields: ["stature", "where"],
  },
  {
    title: "Shot",
    lead: "What the recording is for decides the picture; the camera decides how far away it stands.",
    fields: ["purpose", "camera"],
  },
  { title: "Light", lead: "What you own, and how many of each.", fields: ["lamps"] },
  {
    title: "Sound",
    lead: "Listeners leave bad sound sooner than a bad picture. What you own, and how many of each.",
    fields: ["microphones"],
  },
  {
    title: "Money",
    lead: "What you could spend now. Moves that cost nothing come first anyway.",
    fields: ["budget"],
  },
] as const;

export const STANDING = {
  title: "As it is today",
  lead: "Measure each from the left and from the back wall of the drawing. What you give is drawn at once.",
  fields: ["seat", "lens", "key", "microphone", "focal", "fNumber", "iso"],
} as const;

/** The page on which a field of the answers is asked for; the last where none is. */
export function pageOf(field: string, pages: readonly { fields: readonly string[] }[]): number {
  const first = field.split(".")[0] ?? "";
  const index = pages.findIndex((page) => page.fields.includes(first));
  return index < 0 ? pages.length - 1 : index;
}
