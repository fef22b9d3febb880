// The first run: few answers in the order of the work, and the full answers that they stand for.
import type { Gear } from "../api/client";
import { newAnswers, type Answers, type PlaceText } from "../answers/answers";
import { unitTold, type UnitSystem } from "../units/length";
import { BORROWED, CAMERAS, LAMPS, MICROPHONES, STANDS, type Usual } from "./gear";

export interface FirstRun {
  units: UnitSystem;
  width: string;
  depth: string;
  height: string;
  door: string;
  window: string;
  furnishing: string;
  stature: string;
  where: string;
  purpose: string;
  /** Kind of camera; none where nobody has one yet. */
  camera: string;
  /** How many of each lamp, board and microphone, by kind. */
  lamps: Record<string, number>;
  microphones: Record<string, number>;
  budget: string;
  seat: PlaceText;
  lens: PlaceText;
  key: PlaceText;
  microphone: PlaceText;
  focal: string;
  fNumber: string;
  /** What a person has answered: the rest is assumed. */
  answered: string[];
}

/** What the fields of a page are given. */
export interface FieldsProps {
  run: FirstRun;
  /** By field of the answers. */
  problems: Record<string, string>;
  onChange: (change: Partial<FirstRun>) => void;
}

const NOWHERE = { x: "", y: "", z: "" };

export function newFirstRun(units: UnitSystem = "metric"): FirstRun {
  return {
    units,
    width: "",
    depth: "",
    height: units === "metric" ? "2.40 m" : "8' 0\"",
    door: "1",
    window: "3",
    furnishing: "",
    stature: "",
    where: "desk",
    purpose: "talk-to-lens",
    camera: "aps-c",
    lamps: { softbox: 1, small: 1, board: 1 },
    microphones: { boom: 1 },
    budget: "0",
    seat: NOWHERE,
    lens: NOWHERE,
    key: NOWHERE,
    microphone: NOWHERE,
    focal: "",
    fNumber: "",
    answered: [],
  };
}

const LENGTHS = ["width", "depth", "height", "stature"] as const;
const PLACES = ["seat", "lens", "key", "microphone"] as const;

/** The answers read in other units from now on; a bare number keeps the unit it was typed in. */
export function inUnits(run: FirstRun, units: UnitSystem): FirstRun {
  if (run.units === units) return run;
  const told = (text: string) => unitTold(text, run.units);
  const lengths = Object.fromEntries(LENGTHS.map((name) => [name, told(run[name])]));
  const places = Object.fromEntries(
    PLACES.map((name) => [
      name,
      Object.fromEntries(Object.entries<string>({ ...run[name] }).map(([axis, text]) => [axis, told(text)])),
    ]),
  );
  const height = run.answered.includes("height") ? {} : { height: newFirstRun(units).height };
  return { ...run, ...lengths, ...places, ...height, units };
}

/** Names of several things of one kind: the name itself, then name-2 and on. */
const numbered = (id: string, number: number) => (number === 1 ? id : `${id}-${String(number)}`);

function several(all: readonly Usual[], counts: Record<string, number>): [string, Gear][] {
  return all.flatMap((usual) =>
    Array.from({ length: counts[usual.id] ?? 0 }, (_, i) =>
      Object.entries(usual.gear).map(([id, gear]): [string, Gear] => [numbered(id, i + 1), gear]),
    ).flat(),
  );
}

/** Everything at hand: what was told, and a stand for each thing that needs one; all figures assumed. */
export function gearOf(run: FirstRun): Record<string, Gear> {
  const cameras = [...CAMERAS, BORROWED].filter((usual) => usual.id === run.camera);
  const stands: Partial<Record<keyof typeof STANDS, number>> = {};
  const needs = [
    ...cameras.map((usual) => [usual, 1] as const),
    ...[...LAMPS, ...MICROPHONES].map(
      (usual) => [usual, run.lamps[usual.id] ?? run.microphones[usual.id] ?? 0] as const,
    ),
  ];
  for (const [usual, many] of needs) {
    const stand = (run.where === "desk" ? usual.standAtDesk : undefined) ?? usual.stand;
    if (stand) stands[stand] = (stands[stand] ?? 0) + many;
  }
  const standing = Object.entries(stands).flatMap(([kind, many]) =>
    Array.from({ length: many }, (_, i): [string, Gear] => [
      `${kind}-${String(i + 1)}`,
      STANDS[kind as keyof typeof STANDS],
    ]),
  );
  const all = [
    ...several(cameras, { [run.camera]: 1 }),
    ...several(LAMPS, run.lamps),
    ...several(MICROPHONES, run.microphones),
    ...standing,
  ];
  return Object.fromEntries(all.map(([id, gear]) => [id, { ...gear, figures_assumed: true }]));
}

/** The full answers that a first run stands for. */
export function answersOf(run: FirstRun, standing: boolean): Answers {
  const start = newAnswers(run.units);
  const openings = start.openings
    .map((opening) => ({ ...opening, wall: opening.kind === "door" ? run.door : run.window }))
    .filter(({ wall }) => wall !== "none");
  return {
    ...start,
    width: run.width,
    depth: run.depth,
    height: run.height,
    furnishing: run.furnishing,
    stature: run.stature,
    posture: run.where === "standing" ? "standing" : "seated",
    seatAt: run.where === "desk" ? "desk" : "",
    // New answers bring a desk.
    furniture: run.where === "desk" ? start.furniture : [],
    openings,
    purpose: run.purpose as Answers["purpose"],
    gear: gearOf(run),
    budget: run.budget,
    today: standing,
    seat: run.seat,
    lens: run.lens,
    key: run.key,
    microphone: run.microphone,
    focal: run.focal,
    fNumber: run.fNumber,
  };
}

const KEPT = "fogon.first-run";

/** What was answered and not sent yet. */
export function recall(): { run: FirstRun; page: number } {
  try {
    const kept = JSON.parse(localStorage.getItem(KEPT) ?? "null") as {
      run: FirstRun;
      page: number;
    } | null;
    if (kept && typeof kept.page === "number" && Array.isArray(kept.run.answered))
      return { run: { ...newFirstRun(), ...kept.run }, page: kept.page };
  } catch {
    // What cannot be read is as good as nothing.
  }
  return { run: newFirstRun(), page: 0 };
}

export const remember = (run: FirstRun, page: number): void =>
  localStorage.setItem(KEPT, JSON.stringify({ run, page }));

export const forget = (): void => localStorage.removeItem(KEPT);
