// How the corner stands today, from the few places that were measured: the camera is taken to be aimed at the eyes.
import type { Brief, Gear, Schemas } from "../api/client";
import { brightness } from "../shelf/figures";
import type { Read } from "./schema";

type Today = Schemas["Today"];

const degrees = (radians: number) => (radians * 180) / Math.PI;
/** A bearing from 0 up to 360. */
const turn = (bearing: number) => Number((((bearing % 360) + 360) % 360).toFixed(2)) % 360;

/** Eye height where it was not measured: parts of the stature, common practice, no source. */
const EYES_STANDING = 0.936;
const EYES_SEATED = 0.456;
const SEAT_M = 0.45;
/** The lens is aimed a little under the eyes, m. */
const UNDER_EYES_M = 0.06;

/** Gear at hand that fits, by id. */
function first(brief: Brief, fits: (gear: Gear) => boolean): string | undefined {
  return Object.entries(brief.gear ?? {}).find(
    ([, gear]) => ["owned", "borrowed"].includes(gear.state ?? "owned") && fits(gear),
  )?.[0];
}

/** The gear that a set-up of few words is taken to use: the first camera with its lens, the brightest lamp, the first microphone. */
export function gearInUse(brief: Brief) {
  const body = first(brief, (gear) => gear.kind === "camera") ?? "camera";
  const own = first(brief, (gear) => gear.kind === "lens" && gear.built_into === body);
  const lens = own ?? first(brief, (gear) => gear.kind === "lens" && gear.built_into == null) ?? "lens";
  const lamps = Object.entries(brief.gear ?? {}).flatMap(([id, gear]) =>
    gear.kind === "light" ? [{ id, size: brightness(gear) * gear.width_m * gear.height_m }] : [],
  );
  const key = lamps.sort((a, b) => b.size - a.size)[0]?.id ?? "key";
  const microphone = first(brief, (gear) => gear.kind === "microphone") ?? "microphone";
  const tripod = first(
    brief,
    (gear) => gear.kind === "support" && (gear.offers ?? []).some((offer) => offer === "camera"),
  );
  return { body, lens, key, microphone, tripod };
}

const given = ({ x, y, z }: Read["key"]) => x !== 0 || y !== 0 || z !== 0;

export function todayOf(read: Read, brief: Brief, known: Today | null): Today {
  const { x: sx, y: sy } = read.seat;
  const { x: lx, y: ly, z: lz } = read.lens;
  const { stature_m, seat_height_m, posture } = brief.person;
  const eye =
    brief.measured?.["person.eye.height_m"] ??
    (posture === "seated" ? (seat_height_m ?? SEAT_M) + EYES_SEATED * stature_m : EYES_STANDING * stature_m);
  const flat = Math.max(Math.hypot(sx - lx, sy - ly), 0.05);
  const bearing = degrees(Math.atan2(sx - lx, sy - ly));
  const floor: Schemas["Support"] = { kind: "floor" };
  const gear = gearInUse(brief);
  const imperial = brief.units === "imperial";
  // What the answers do not show, as the screen and what hangs to reduce echo, stays as it was told.
  const today: Today = {
    ...known,
    seat: { position_m: [sx, sy], bearing_deg: turn(bearing + 180) },
    camera: {
      body: known?.camera?.body ?? gear.body,
      lens: known?.camera?.lens ?? gear.lens,
      position_m: [lx, ly, lz],
      bearing_deg: turn(bearing),
      tilt_deg: Number(degrees(Math.atan2(eye - UNDER_EYES_M - lz, flat)).toFixed(2)),
      orientation: brief.purpose === "vertical-short" ? "portrait" : "landscape",
      focal_length_mm: read.focal,
      f_number: read.fNumber,
      shutter_s: imperial ? 1 / 60 : 0.02,
      iso: read.iso,
      frame_rate_hz: imperial ? 30 : 25,
      white_balance_k: 5600,
      focus_distance_m: Math.max(0.1, Number(flat.toFixed(3))),
      support: gear.tripod ? { ...floor, gear: gear.tripod } : floor,
    },
  };
  const lights = Object.entries(known?.lights ?? {});
  const key = lights.find(([, light]) => light.role === "key");
  const others = Object.fromEntries(lights.filter(([, light]) => light.role !== "key"));
  if (given(read.key))
    today.lights = {
      ...others,
      [key?.[0] ?? "key"]: {
        dim: 1,
        support: floor,
        gear: gear.key,
        ...key?.[1],
        role: "key",
        position_m: [read.key.x, read.key.y, read.key.z],
      },
    };
  else if (known?.lights) today.lights = others;
  if (given(read.microphone))
    today.microphone = {
      support: { kind: "on" },
      gear: gear.microphone,
      ...known?.microphone,
      position_m: [read.microphone.x, read.microphone.y, read.microphone.z],
    };
  else Reflect.deleteProperty(today, "microphone");
  return today;
}
