// What a person has typed so far, and the brief it makes. Texts stay as typed until they are read; parts of an
// existing brief that the form does not show are carried through untouched.
import { brightness } from "../shelf/figures";
import type { Brief, Gear, Schemas } from "../api/client";
import { editLength, unitTold, type UnitSystem } from "../units/length";
import { keepExact } from "./exact";
import { newOpening, openingsOf, openingsTyped, type OpeningDraft } from "./openings";
import { PLACE, Reader, SIDE, within, type Problems } from "./reader";
import { isRectangle, legsOf, roomiest, type BeamDraft, type LegDraft, type SlopeDraft } from "./walls";

export interface FurnitureDraft {
  id: string;
  kind: string;
  width: string;
  depth: string;
  height: string;
  x: string;
  y: string;
  foot: string;
  bearing: string;
  fixed: boolean;
}

export interface Draft {
  texts: Record<string, string>;
  furniture: FurnitureDraft[];
  openings: OpeningDraft[];
  /** The walk round a floor that is no rectangle, and the floor it makes. */
  legs: LegDraft[];
  floor: Schemas["Room"]["floor_m"] | null;
  slopes: SlopeDraft[];
  beams: BeamDraft[];
  schools: Record<string, string>;
  /** Gear ids that the form's fields stand for. */
  ids: Record<string, string>;
  /** The brief being changed, if there is one. */
  base: Brief | null;
  /** Gear was told by its kind alone: its figures are those of the kind. */
  figuresAssumed?: boolean;
}

/** Sensor formats by width and height in mm; trade nominal sizes, from memory. */
export const FORMATS: [string, string, number, number][] = [
  ["full-frame", "Full frame, 36 × 24 mm", 36, 24],
  ["aps-c", "APS-C, 23.5 × 15.6 mm", 23.5, 15.6],
  ["aps-c-small", "APS-C, 22.3 × 14.9 mm", 22.3, 14.9],
  ["four-thirds", "Four Thirds, 17.3 × 13 mm", 17.3, 13],
  ["one-inch", "1-inch, 13.2 × 8.8 mm", 13.2, 8.8],
  ["phone-large", "Phone, main camera, 9.8 × 7.35 mm", 9.8, 7.35],
  ["phone-small", "Phone, small, 5.64 × 4.23 mm", 5.64, 4.23],
  ["webcam", "Webcam, 6.4 × 4.8 mm", 6.4, 4.8],
];

/** Cameras whose lens is part of them: what they weigh and are called. Typical figures. */
const LENS_BUILT_IN = {
  phone: { label: "Phone", lens: "Phone lens", mass: 0.25, iso: 50 },
  webcam: { label: "Webcam", lens: "Webcam lens", mass: 0.15, iso: 100 },
} as const;

function builtIn(format: string): (typeof LENS_BUILT_IN)[keyof typeof LENS_BUILT_IN] | null {
  if (format.startsWith("phone")) return LENS_BUILT_IN.phone;
  return format === "webcam" ? LENS_BUILT_IN.webcam : null;
}

/** Microphone kinds with the figures of the sound trade's usual types. */
const MICROPHONES: Record<
  string,
  { mounting: string; a: number; noise: number; mass: number; label: string }
> = {
  boom: { mounting: "boom", a: 0.25, noise: 14, mass: 0.2, label: "Boomed microphone" },
  lavalier: { mounting: "lavalier", a: 1, noise: 26, mass: 0.05, label: "Lavalier" },
  desk: { mounting: "desk", a: 0.5, noise: 12, mass: 0.6, label: "Desk microphone" },
  headset: { mounting: "headset", a: 1, noise: 26, mass: 0.05, label: "Headset" },
  "on-camera": { mounting: "on-camera", a: 0.366, noise: 18, mass: 0.15, label: "Microphone on the camera" },
  "built-in": { mounting: "built-in", a: 1, noise: 32, mass: 0, label: "The camera's own microphone" },
};

/** Stands as the shelf counts them: what each carries and how far it reaches. */
const STANDS = {
  tripods: {
    offers: ["camera"],
    label: "Tripod",
    low: 0.5,
    high: 1.75,
    foot: 0.42,
    payload: 4,
    mass: 1.8,
    reach: 0,
  },
  lightStands: {
    offers: ["light"],
    label: "Light stand",
    low: 0.7,
    high: 2.4,
    foot: 0.42,
    payload: 5,
    mass: 1.6,
    reach: 0,
  },
  boomStands: {
    offers: ["light"],
    label: "Boom stand",
    low: 0.9,
    high: 2.4,
    foot: 0.42,
    payload: 4,
    mass: 3.4,
    reach: 1.1,
  },
  microphoneStands: {
    offers: ["microphone"],
    label: "Microphone stand with boom",
    low: 0.8,
    high: 2.2,
    foot: 0.35,
    payload: 2,
    mass: 2.6,
    reach: 0.9,
  },
} as const;

/** Where answers that are not laid out yet are kept, so that leaving the page loses nothing. */
export const draftKey = (corner: { id: number; revision: number } | null): string =>
  corner ? `fogon.answers.${corner.id}.${corner.revision}` : "fogon.new-corner";

/** The answers left unfinished under a key, if there are any. */
export function recall(key: string): Draft | null {
  const left = localStorage.getItem(key);
  if (!left) return null;
  try {
    // What an older page left may lack fields.
    return { ...newDraft(), ...(JSON.parse(left) as Draft) };
  } catch {
    localStorage.removeItem(key);
    return null;
  }
}

export function remember(key: string, draft: Draft): void {
  localStorage.setItem(key, JSON.stringify(draft));
}

export function forget(key: string): void {
  localStorage.removeItem(key);
}

/** Texts that are lengths. */
const LENGTHS = [
  "width",
  "depth",
  "height",
  "stature",
  "seatHeight",
  "eyeHeight",
  "lean",
  "nearest",
  "keyWidth",
  "keyHeight",
  "fillWidth",
  "fillHeight",
  "todayX",
  "todayY",
  "todayLensX",
  "todayLensY",
  "todayLensZ",
  "todayKeyX",
  "todayKeyY",
  "todayKeyZ",
  "todayMicX",
  "todayMicY",
  "todayMicZ",
] as const;
const NOT_LENGTHS = ["id", "kind", "wall", "swing", "turn", "degrees", "bearing"];

/** The draft in other units. A bare number keeps the unit it was typed in; what a new draft brought comes in the new units. */
export function inUnits(draft: Draft, units: UnitSystem): Draft {
  const before: UnitSystem = draft.texts.units === "imperial" ? "imperial" : "metric";
  if (before === units) return draft;
  const [was, is] = [newDraft(before), newDraft(units)];
  const told = (text: string, brought?: string, brings?: string) =>
    brought !== undefined && brings !== undefined && text === brought ? brings : unitTold(text, before);
  const rows = <T extends object>(all: T[], brought: T[], brings: T[]): T[] =>
    all.map((row, index) => {
      const of = (list: T[], field: string) => (list[index] as Record<string, string> | undefined)?.[field];
      const texts = Object.entries(row).map(([field, value]: [string, unknown]) =>
        typeof value === "string" && !NOT_LENGTHS.includes(field)
          ? [field, told(value, of(brought, field), of(brings, field))]
          : [field, value],
      );
      return Object.fromEntries(texts) as T;
    });
  const texts = Object.fromEntries(
    LENGTHS.map((name) => [name, told(draft.texts[name] ?? "", was.texts[name], is.texts[name])]),
  );
  return {
    ...draft,
    texts: { ...draft.texts, ...texts, units },
    furniture: rows(draft.furniture, was.furniture, is.furniture),
    openings: rows(draft.openings, was.openings, is.openings),
    legs: rows(draft.legs, [], []),
    slopes: rows(draft.slopes, [], []),
    beams: rows(draft.beams, [], []),
  };
}

/** A new draft with sensible beginnings. */
export function newDraft(units: UnitSystem = "metric"): Draft {
  const text = (metres: number) =>
    units === "metric" ? `${metres.toFixed(2)} m` : editLength(metres, units);
  return {
    texts: {
      units,
      name: "",
      shape: "rectangle",
      width: "",
      depth: "",
      height: text(2.4),
      volts: "",
      hertz: "",
      furnishing: "",
      breaker: "",
      stature: "",
      posture: "seated",
      seatHeight: "",
      eyeHeight: "",
      lean: "",
      seatAt: "desk",
      glasses: "no",
      tracking: "no",
      purpose: "talk-to-lens",
      format: "aps-c",
      focalMin: "16",
      focalMax: "50",
      fMin: "2.8",
      fMax: "2.8",
      nearest: text(0.3),
      isoMax: "25600",
      key: "octagon",
      keyWidth: text(0.65),
      keyHeight: text(0.65),
      keyLux: "2600",
      keyWatts: "60",
      fill: "board",
      fillWidth: text(0.6),
      fillHeight: text(0.9),
      fillLux: "600",
      back: "yes",
      backLux: "650",
      microphone: "boom",
      tripods: "1",
      lightStands: "2",
      boomStands: "1",
      microphoneStands: "1",
      today: "no",
      todayX: "",
      todayY: "",
      todayLensX: "",
      todayLensY: "",
      todayLensZ: "",
      todayFocal: "",
      todayF: "",
      todayIso: "800",
      todayKeyX: "",
      todayKeyY: "",
      todayKeyZ: "",
      todayMicX: "",
      todayMicY: "",
      todayMicZ: "",
      budget: "0",
      currency: "",
    },
    furniture: [
      {
        id: "desk",
        kind: "desk",
        width: text(1.2),
        depth: text(0.6),
        height: text(0.74),
        x: "",
        y: "",
        foot: text(0),
        bearing: "180",
        fixed: false,
      },
    ],
    openings: [newOpening("door", [], units), newOpening("window", [], units)],
    legs: [],
    floor: null,
    slopes: [],
    beams: [],
    schools: {},
    ids: {},
    base: null,
  };
}

/** The form's texts for an existing corner. */
export function draftOf(name: string, brief: Brief): Draft {
  const draft = newDraft();
  const system: UnitSystem = brief.units ?? "metric";
  const text = (metres: number | null | undefined) =>
    metres === null || metres === undefined ? "" : editLength(metres, system);
  const plain = (value: number | null | undefined) =>
    value === null || value === undefined ? "" : String(value);
  const corner = brief.room.floor_m[2] ?? [0, 0];
  const gear = Object.entries(brief.gear ?? {});
  const first = (fits: (g: Gear) => boolean) =>
    gear.find(([, g]) => fits(g) && (g.state ?? "owned") === "owned");
  const lamps = gear.filter(([, g]) => g.kind === "light" && (g.state ?? "owned") === "owned");
  const size = (g: Gear) => (g.kind === "light" ? brightness(g) * g.width_m * g.height_m : 0);
  lamps.sort((a, b) => size(b[1]) - size(a[1]));
  const board = first((g) => g.kind === "reflector");
  const [camera, lens, microphone] = [
    first((g) => g.kind === "camera"),
    first((g) => g.kind === "lens"),
    first((g) => g.kind === "microphone"),
  ];
  const [key, second, third] = lamps;
  const [fill, back] = board ? [board, second] : third ? [second, third] : [undefined, second];
  const ids: Record<string, string> = {};
  for (const [slot, entry] of Object.entries({ camera, lens, key, fill, back, microphone }))
    if (entry) ids[slot] = entry[0];
  const t = draft.texts;
  Object.assign(t, {
    units: system,
    name,
    shape: isRectangle(brief.room.floor_m) ? "rectangle" : "walk",
    width: isRectangle(brief.room.floor_m) ? text(corner[0]) : "",
    depth: isRectangle(brief.room.floor_m) ? text(corner[1]) : "",
    height: text(brief.room.height_m),
    volts: plain(brief.room.mains?.voltage_v),
    hertz: plain(brief.room.mains?.frequency_hz),
    furnishing: brief.room.furnishing ?? "",
    breaker: plain(brief.room.mains?.breaker_a),
    stature: text(brief.person.stature_m),
    posture: brief.person.posture,
    seatHeight: text(brief.person.seat_height_m),
    eyeHeight: text(brief.measured?.["person.eye.height_m"]),
    lean: text(brief.person.lean_m),
    seatAt: brief.person.seat_at ?? "",
    glasses: brief.person.glasses ? "yes" : "no",
    tracking: brief.person.face_tracking ? "yes" : "no",
    purpose: brief.purpose,
    key: key?.[1].kind === "light" ? key[1].shape : "none",
    fill: fill ? (fill[1].kind === "reflector" ? "board" : "lamp") : "none",
    back: back ? "yes" : "no",
    microphone: microphone?.[1].kind === "microphone" ? microphone[1].mounting : "none",
    budget: plain(brief.money?.budget ?? 0),
    currency: brief.money?.currency ?? "",
    today: brief.today ? "yes" : "no",
  });
  if (camera?.[1].kind === "camera") {
    const c = camera[1];
    t.format =
      FORMATS.find(([, , w, h]) => w === c.sensor_width_mm && h === c.sensor_height_mm)?.[0] ?? "kept";
    t.isoMax = String(c.iso_max);
  }
  if (lens?.[1].kind === "lens") {
    const l = lens[1];
    Object.assign(t, {
      focalMin: String(l.focal_min_mm),
      focalMax: String(l.focal_max_mm),
      fMin: String(l.f_number_at_min),
      fMax: String(l.f_number_at_max),
      nearest: text(l.nearest_focus_m),
    });
  }
  if (key?.[1].kind === "light") {
    const l = key[1];
    Object.assign(t, {
      keyWidth: text(l.width_m),
      keyHeight: text(l.height_m),
      keyLux: plain(l.illuminance_at_1m_lx),
      keyWatts: plain(l.power_w),
    });
  }
  if (fill?.[1].kind === "reflector")
    Object.assign(t, { fillWidth: text(fill[1].width_m), fillHeight: text(fill[1].height_m) });
  if (fill?.[1].kind === "light") t.fillLux = plain(fill[1].illuminance_at_1m_lx);
  if (back?.[1].kind === "light") t.backLux = plain(back[1].illuminance_at_1m_lx);
  for (const slot of Object.keys(STANDS) as (keyof typeof STANDS)[]) {
    t[slot] = String(gear.filter(([, g]) => isStand(g, slot)).length);
  }
  const today = brief.today;
  if (today) {
    const [sx, sy] = today.seat?.position_m ?? [];
    const [lx, ly, lz] = today.camera?.position_m ?? [];
    const [kx, ky, kz] = Object.values(today.lights ?? {}).find((l) => l.role === "key")?.position_m ?? [];
    const [mx, my, mz] = today.microphone?.position_m ?? [];
    Object.assign(t, {
      todayX: text(sx),
      todayY: text(sy),
      todayLensX: text(lx),
      todayLensY: text(ly),
      todayLensZ: text(lz),
      todayFocal: plain(today.camera?.focal_length_mm),
      todayF: plain(today.camera?.f_number),
      todayIso: plain(today.camera?.iso ?? 800),
      todayKeyX: text(kx),
      todayKeyY: text(ky),
      todayKeyZ: text(kz),
      todayMicX: text(mx),
      todayMicY: text(my),
      todayMicZ: text(mz),
    });
  }
  draft.furniture = Object.entries(brief.room.furniture ?? {}).map(([id, f]) => ({
    id,
    kind: f.kind,
    width: text(f.size_m[0]),
    depth: text(f.size_m[1]),
    height: text(f.size_m[2]),
    x: text(f.position_m[0]),
    y: text(f.position_m[1]),
    foot: text(f.position_m[2]),
    bearing: String(f.bearing_deg ?? 0),
    fixed: f.fixed ?? false,
  }));
  draft.openings = openingsTyped(brief.room, system);
  if (t.shape === "walk") {
    draft.legs = legsOf(brief.room.floor_m, system);
    draft.floor = brief.room.floor_m;
  }
  draft.slopes = Object.entries(brief.room.slopes ?? {}).map(([id, s]) => ({
    id,
    wall: String(s.wall),
    from: s.from_m ? text(s.from_m) : "",
    length: text(s.length_m),
    knee: text(s.knee_m),
    run: text(s.run_m),
  }));
  draft.beams = Object.entries(brief.room.beams ?? {}).map(([id, b]) => ({
    id,
    fromX: text(b.from_m[0]),
    fromY: text(b.from_m[1]),
    toX: text(b.to_m[0]),
    toY: text(b.to_m[1]),
    width: text(b.width_m),
    drop: text(b.drop_m),
  }));
  draft.schools = Object.fromEntries(
    Object.entries(brief.schools ?? {}).filter(([, v]) => typeof v === "string"),
  );
  draft.ids = ids;
  draft.base = brief;
  return draft;
}

function isStand(gear: Gear, slot: keyof typeof STANDS): boolean {
  if (gear.kind !== "support" || (gear.state ?? "owned") !== "owned") return false;
  const { offers, reach } = STANDS[slot];
  return (gear.offers ?? []).includes(offers[0]) && (gear.reach_m ?? 0) > 0.25 === reach > 0.25;
}

/** The floor: a rectangle as typed, or what the walk makes. */
function floorOf(draft: Draft, read: Reader): Schemas["Room"]["floor_m"] {
  if (read.text("shape") !== "walk") {
    const [width, depth] = [read.length("width", SIDE), read.length("depth", SIDE)];
    return [
      [0, 0],
      [width, 0],
      [width, depth],
      [0, depth],
    ];
  }
  draft.legs.forEach((leg, index) => read.length(`walk.${index}`, [0.05, 50], leg.length.trim()));
  if (!draft.floor) read.problems.walk = "The walk round the room does not close yet.";
  return draft.floor ?? [];
}

/** Slopes and beams, left out where there are none. */
function overheadOf(draft: Draft, read: Reader): Pick<Schemas["Room"], "slopes" | "beams"> {
  const slopes = draft.slopes.map((slope, index) => {
    const length = (name: "from" | "length" | "knee" | "run", limit: readonly [number, number]) =>
      read.length(`slopes.${index}.${name}`, limit, slope[name].trim());
    return [
      slope.id,
      {
        wall: Number(slope.wall),
        from_m: slope.from.trim() === "" ? 0 : length("from", within("Slope.from_m")),
        ...(slope.length.trim() === "" ? {} : { length_m: length("length", within("Slope.length_m")) }),
        knee_m: length("knee", within("Slope.knee_m")),
        run_m: length("run", within("Slope.run_m")),
      },
    ] as const;
  });
  const beams = draft.beams.map((beam, index) => {
    const length = (name: Exclude<keyof BeamDraft, "id">, limit: readonly [number, number]) =>
      read.length(`beams.${index}.${name}`, limit, beam[name].trim());
    return [
      beam.id,
      {
        from_m: [length("fromX", PLACE), length("fromY", PLACE)] as [number, number],
        to_m: [length("toX", PLACE), length("toY", PLACE)] as [number, number],
        width_m: length("width", within("Beam.width_m")),
        drop_m: length("drop", within("Beam.drop_m")),
      },
    ] as const;
  });
  return { slopes: Object.fromEntries(slopes), beams: Object.fromEntries(beams) };
}

/** The brief that a draft makes, and what could not be read, by field. */
export function briefOf(draft: Draft): { name: string; brief: Brief; problems: Problems } {
  const typed = briefTyped(draft);
  if (!draft.base) return typed;
  const untouched = briefTyped(draftOf(typed.name, draft.base)).brief;
  return { ...typed, brief: keepExact(typed.brief, untouched, draft.base) };
}

/** The same, every length as its text reads. */
function briefTyped(draft: Draft): { name: string; brief: Brief; problems: Problems } {
  const read = new Reader(draft.texts);
  const name = read.text("name") || "My corner";
  const floor = floorOf(draft, read);
  const middle = roomiest(floor);
  const base = structuredClone(draft.base);
  const openings = openingsOf(draft.openings, read, base?.room.openings ?? {});
  const furniture: Record<string, Schemas["Furniture"]> = {};
  draft.furniture.forEach((piece, index) => {
    const at = (field: keyof FurnitureDraft) => `furniture.${index}.${field}`;
    const length = (
      field: "width" | "depth" | "height" | "x" | "y" | "foot",
      limit: readonly [number, number],
    ) => read.length(at(field), limit, piece[field].trim());
    const size: [number, number, number] = [
      length("width", [0.02, 10]),
      length("depth", [0.02, 10]),
      length("height", [0.02, 10]),
    ];
    // A piece that goes where the seat goes need not be placed: the roomiest place stands in.
    const [x, y] = [
      piece.x.trim() === "" && !piece.fixed ? middle[0] : length("x", PLACE),
      piece.y.trim() === "" && !piece.fixed ? middle[1] : length("y", PLACE),
    ];
    furniture[piece.id] = {
      kind: piece.kind as Schemas["FurnitureKind"],
      position_m: [x, y, piece.foot.trim() === "" ? 0 : length("foot", PLACE)],
      bearing_deg: Number(piece.bearing),
      size_m: size,
      fixed: piece.fixed,
    };
  });
  const mains = {
    voltage_v: read.optionalNumber("volts", within("Mains.voltage_v")),
    frequency_hz: read.optionalNumber("hertz", within("Mains.frequency_hz")),
    breaker_a: read.optionalNumber("breaker", within("Mains.breaker_a")),
  };
  if (mains.frequency_hz !== null && mains.frequency_hz !== 50 && mains.frequency_hz !== 60) {
    read.problems.hertz ??= `${mains.frequency_hz} is not accepted: give 50 or 60.`;
  }
  const seated = read.text("posture") === "seated";
  const measured = { ...(base?.measured ?? {}) };
  const eye = read.optionalLength("eyeHeight", [0.5, 2.3]);
  if (eye === null) delete measured["person.eye.height_m"];
  else measured["person.eye.height_m"] = eye;
  const seatAt = read.text("seatAt");
  const gear = gearOf(draft, read, base);
  const brief: Brief = {
    ...(base ?? {}),
    units: read.text("units") as UnitSystem,
    room: {
      ...(base?.room ?? {}),
      furnishing: (read.text("furnishing") || null) as Schemas["Furnishing"] | null,
      floor_m: floor,
      height_m: read.length("height", within("Room.height_m")),
      ...overheadOf(draft, read),
      openings,
      furniture,
      mains,
    },
    person: {
      ...(base?.person ?? {}),
      stature_m: read.length("stature", within("Person.stature_m")),
      posture: seated ? "seated" : "standing",
      seat_height_m: seated ? read.optionalLength("seatHeight", within("Person.seat_height_m")) : null,
      seat_at: seatAt !== "" && furniture[seatAt] ? seatAt : null,
      glasses: read.is("glasses"),
      lean_m: read.optionalLength("lean", within("Person.lean_m")),
      face_tracking: read.is("tracking"),
    },
    purpose: read.text("purpose") as Schemas["Purpose"],
    schools: draft.schools,
    gear,
    money: {
      budget: read.number("budget", within("Money.budget")),
      currency: read.text("currency").slice(0, 8),
    },
    measured,
  };
  if (read.is("today")) brief.today = todayOf(draft, read, brief);
  else delete brief.today;
  return { name, brief, problems: read.problems };
}

/** The other camera of a phone: it shows the picture, and gathers less light. Typical figures. */
const SELFIE: Record<string, Gear> = {
  "selfie-camera": {
    kind: "camera",
    label: "Phone, selfie camera",
    mass_kg: 0.25,
    sensor_width_mm: 4.8,
    sensor_height_mm: 3.6,
    extra_crop: 1.1,
    iso_min: 50,
    iso_max: 3200,
    face_tracking: true,
    video_width_px: 1920,
    flip_screen_width_m: 0.14,
    figures_assumed: true,
  },
  "selfie-lens": {
    kind: "lens",
    label: "Lens of the selfie camera",
    focal_min_mm: 3.1,
    focal_max_mm: 3.1,
    f_number_at_min: 2.2,
    f_number_at_max: 2.2,
    f_number_limit: 2.2,
    nearest_focus_m: 0.25,
    built_into: "selfie-camera",
    figures_assumed: true,
  },
};

function gearOf(draft: Draft, read: Reader, base: Brief | null): Record<string, Gear> {
  const gear: Record<string, Gear> = { ...(base?.gear ?? {}) };
  /** Puts what was typed in the form's slot, over what is known of the thing already, over what is usual; null
   * takes it away. */
  const put = (slot: string, kind: Gear["kind"], usual: object, typed: object | null) => {
    const id = draft.ids[slot] ?? slot;
    const known = gear[id];
    delete gear[id];
    if (typed === null) return;
    const same = known?.kind === kind ? known : null;
    // Figures once assumed stay so until one of them is typed anew.
    const untouched =
      same !== null &&
      Object.entries(typed).every(([field, value]) => (same as Record<string, unknown>)[field] === value);
    const assumed = draft.figuresAssumed === true || (untouched && same.figures_assumed === true);
    const told = assumed || same?.figures_assumed !== undefined ? { figures_assumed: assumed } : {};
    gear[id] = { ...usual, ...same, ...typed, ...told, kind } as Gear;
  };
  const format = FORMATS.find(([id]) => id === read.text("format"));
  const own = builtIn(read.text("format"));
  const camera = {
    label: own?.label ?? "Camera",
    mass_kg: own?.mass ?? 0.6,
    iso_min: own?.iso ?? 100,
    // A webcam records what is delivered, and has no more to be cut from.
    ...(own === LENS_BUILT_IN.webcam ? { video_width_px: 1920 } : {}),
  };
  put("camera", "camera", camera, {
    ...(format ? { sensor_width_mm: format[2], sensor_height_mm: format[3] } : {}),
    iso_max: read.number("isoMax", within("GearCamera.iso_max")),
    face_tracking: read.is("tracking"),
  });
  const fMin = read.number("fMin", within("GearLens.f_number_at_min"));
  const fMax = read.number("fMax", within("GearLens.f_number_at_max"));
  const lens = {
    label: own?.lens ?? "Lens",
    mass_kg: own ? 0 : 0.3,
    f_number_limit: own ? Math.max(fMin, fMax) : 22,
  };
  put("lens", "lens", lens, {
    focal_min_mm: read.number("focalMin", within("GearLens.focal_min_mm")),
    focal_max_mm: read.number("focalMax", within("GearLens.focal_max_mm")),
    f_number_at_min: fMin,
    f_number_at_max: fMax,
    nearest_focus_m: read.length("nearest", within("GearLens.nearest_focus_m")),
    ...(own ? { built_into: draft.ids.camera ?? "camera" } : {}),
  });
  if (own === LENS_BUILT_IN.phone) Object.assign(gear, { ...SELFIE, ...gear });
  // A lamp that is known by another figure, as one that was measured, needs none here.
  const lux = (name: string, id: string) => {
    const lamp = gear[id];
    const limit = within("GearLight.illuminance_at_1m_lx");
    const known =
      lamp?.kind === "light" &&
      (lamp.measured_lx ?? lamp.bare_at_1m_lx ?? lamp.flux_lm ?? lamp.power_w) != null;
    const told = known && lamp.illuminance_at_1m_lx == null;
    return { illuminance_at_1m_lx: told ? read.optionalNumber(name, limit) : read.number(name, limit) };
  };
  const shape = read.text("key");
  put(
    "key",
    "light",
    { label: "Key light", mass_kg: 1.9, cct_min_k: 5600, cct_max_k: 5600 },
    shape === "none"
      ? null
      : {
          power_w: read.optionalNumber("keyWatts", within("Common.power_w")),
          shape,
          width_m: read.length("keyWidth", within("GearLight.width_m")),
          height_m:
            shape === "rectangle" || shape === "ring" || shape === "tube"
              ? read.length("keyHeight", within("GearLight.height_m"))
              : read.length("keyWidth", within("GearLight.width_m")),
          ...lux("keyLux", draft.ids.key ?? "key"),
        },
  );
  const fill = read.text("fill");
  put(
    "fill",
    fill === "lamp" ? "light" : "reflector",
    fill === "lamp"
      ? {
          label: "Fill light",
          mass_kg: 0.9,
          shape: "rectangle",
          width_m: 0.3,
          height_m: 0.2,
          depth_m: 0.06,
          cct_min_k: 5600,
          cct_max_k: 5600,
        }
      : { label: "White board", mass_kg: 0.3, reflectance: 0.85 },
    fill === "none"
      ? null
      : fill === "board"
        ? {
            width_m: read.length("fillWidth", within("GearPanel.width_m")),
            height_m: read.length("fillHeight", within("GearPanel.height_m")),
          }
        : lux("fillLux", draft.ids.fill ?? "fill"),
  );
  put(
    "back",
    "light",
    {
      label: "Small back light",
      mass_kg: 0.35,
      shape: "rectangle",
      width_m: 0.18,
      height_m: 0.11,
      depth_m: 0.05,
      cct_min_k: 3200,
      cct_max_k: 5600,
    },
    read.is("back") ? lux("backLux", draft.ids.back ?? "back") : null,
  );
  const kind = MICROPHONES[read.text("microphone")];
  const owned = gear[draft.ids.microphone ?? "microphone"];
  // Another kind of microphone is another microphone.
  if (owned?.kind === "microphone" && owned.mounting !== kind?.mounting)
    delete gear[draft.ids.microphone ?? "microphone"];
  put(
    "microphone",
    "microphone",
    kind ? { label: kind.label, mass_kg: kind.mass, pattern_a: kind.a, self_noise_dba: kind.noise } : {},
    kind ? { mounting: kind.mounting } : null,
  );
  for (const slot of Object.keys(STANDS) as (keyof typeof STANDS)[]) {
    const wanted = Math.round(read.number(slot, [0, 6]));
    const present = Object.keys(gear).filter((id) => gear[id] && isStand(gear[id], slot));
    for (const id of present.slice(wanted)) delete gear[id];
    const stand = STANDS[slot];
    const stem = slot
      .replace(/([A-Z])/g, "-$1")
      .toLowerCase()
      .replace(/s$/, "");
    for (let number = present.length; number < wanted; number += 1) {
      gear[`${stem}-${number + 1}`] = {
        kind: "support",
        label: stand.label,
        mass_kg: stand.mass,
        offers: [...stand.offers],
        height_min_m: stand.low,
        height_max_m: stand.high,
        foot_radius_m: stand.foot,
        payload_kg: stand.payload,
        reach_m: stand.reach,
        figures_assumed: true,
      };
    }
  }
  return gear;
}

/** How the corner stands today: the camera is taken to be aimed at the eyes. */
function todayOf(draft: Draft, read: Reader, brief: Brief): Schemas["Today"] {
  const place = (name: string) => read.length(name, PLACE);
  const [sx, sy] = [place("todayX"), place("todayY")];
  const [lx, ly, lz] = [place("todayLensX"), place("todayLensY"), place("todayLensZ")];
  const { stature_m, seat_height_m } = brief.person;
  const eye =
    brief.measured?.["person.eye.height_m"] ??
    (brief.person.posture === "seated" ? (seat_height_m ?? 0.45) + 0.456 * stature_m : 0.936 * stature_m);
  const flat = Math.max(Math.hypot(sx - lx, sy - ly), 0.05);
  const bearing = (Math.atan2(sx - lx, sy - ly) * 180) / Math.PI;
  const turn = (degrees: number) => Number((((degrees % 360) + 360) % 360).toFixed(2)) % 360;
  const floor: Schemas["Support"] = { kind: "floor" };
  const ids = (slot: string) => draft.ids[slot] ?? slot;
  // What the form does not show, as the screen and what hangs against the echo, stays as it was told.
  const kept = draft.base?.today;
  const today: Schemas["Today"] = {
    ...kept,
    seat: { position_m: [sx, sy], bearing_deg: turn(bearing + 180) },
    camera: {
      body: ids("camera"),
      lens: ids("lens"),
      position_m: [lx, ly, lz],
      bearing_deg: turn(bearing),
      tilt_deg: Number(((Math.atan2(eye - 0.06 - lz, flat) * 180) / Math.PI).toFixed(2)),
      orientation: brief.purpose === "vertical-short" ? "portrait" : "landscape",
      focal_length_mm: read.number("todayFocal", within("Camera.focal_length_mm")),
      f_number: read.number("todayF", within("Camera.f_number")),
      shutter_s: brief.units === "imperial" ? 1 / 60 : 0.02,
      iso: read.number("todayIso", within("Camera.iso")),
      frame_rate_hz: brief.units === "imperial" ? 30 : 25,
      white_balance_k: 5600,
      focus_distance_m: Math.max(0.1, Number(flat.toFixed(3))),
      support: Object.keys(brief.gear ?? {}).includes("tripod-1") ? { ...floor, gear: "tripod-1" } : floor,
    },
  };
  const known = Object.entries(kept?.lights ?? {}).find(([, light]) => light.role === "key");
  const others = Object.fromEntries(
    Object.entries(kept?.lights ?? {}).filter(([, light]) => light.role !== "key"),
  );
  if (read.text("todayKeyX") !== "") {
    today.lights = {
      ...others,
      [known?.[0] ?? "key"]: {
        dim: 1,
        support: floor,
        ...known?.[1],
        gear: ids("key"),
        role: "key",
        position_m: [place("todayKeyX"), place("todayKeyY"), place("todayKeyZ")],
      },
    };
  } else if (kept?.lights) today.lights = others;
  if (read.text("todayMicX") !== "") {
    today.microphone = {
      support: { kind: "on" },
      ...kept?.microphone,
      gear: ids("microphone"),
      position_m: [place("todayMicX"), place("todayMicY"), place("todayMicZ")],
    };
  } else delete today.microphone;
  return today;
}

/** The form's field for a field the server refused, if it shows it. */
export function fieldFor(path: string, draft: Draft): string | null {
  const [, opening, side] = /openings\.([a-z0-9-]+)\.(wall|\w+(?=_m))/.exec(path) ?? [];
  if (opening && side) {
    const index = draft.openings.findIndex((o) => o.id === opening);
    return index < 0 ? null : `openings.${index}.${side}`;
  }
  const [, piece, part] = /furniture\.([a-z0-9-]+)\.(\w+_m(?:\[\d\])?)/.exec(path) ?? [];
  if (piece && part) {
    const index = draft.furniture.findIndex((f) => f.id === piece);
    const fields: Record<string, string> = {
      "position_m[0]": "x",
      "position_m[1]": "y",
      "size_m[0]": "width",
      "size_m[1]": "depth",
      "size_m[2]": "height",
    };
    return index < 0 ? null : `furniture.${index}.${fields[part] ?? "x"}`;
  }
  const [, list, hung, part2] = /(slopes|beams)\.([a-z0-9-]+)\.(\w+?)_m/.exec(path) ?? [];
  if (list && hung) {
    const things: { id: string }[] = list === "slopes" ? draft.slopes : draft.beams;
    const index = things.findIndex((thing) => thing.id === hung);
    const field = list === "beams" && part2 === "to" ? "toX" : (part2 ?? "");
    return index < 0 ? null : `${list}.${index}.${field}`;
  }
  const known: [RegExp, string][] = [
    [/floor_m/, draft.texts.shape === "walk" ? "walk" : "width"],
    [/room\.height_m/, "height"],
    [/stature_m/, "stature"],
    [/seat_height_m/, "seatHeight"],
    [/focal_/, "focalMin"],
    [/f_number/, "fMin"],
  ];
  return known.find(([pattern]) => pattern.test(path))?.[1] ?? null;
}
