// Gear told by its kind in the first run: the figures of the usual thing of that kind stand in and are marked as assumed. Typical
// figures, common practice, no source.
import type { Gear } from "../api/client";
import type { Art } from "./art";

export interface Usual {
  id: string;
  name: string;
  art: Art;
  /** What comes along when it is owned: itself and what belongs to it. */
  gear: Record<string, Gear>;
  /** The stand that it is taken to have, and the one where there is a desk. */
  stand?: keyof typeof STANDS;
  standAtDesk?: keyof typeof STANDS;
}

const camera = (
  label: string,
  [sensor_width_mm, sensor_height_mm]: [number, number],
  mass_kg: number,
  [iso_min, iso_max]: [number, number],
  more: object = {},
): Gear => ({ kind: "camera", label, mass_kg, sensor_width_mm, sensor_height_mm, iso_min, iso_max, ...more });

const lens = (
  label: string,
  [focal_min_mm, focal_max_mm]: [number, number],
  [f_number_at_min, f_number_at_max]: [number, number],
  nearest_focus_m: number,
  more: object = {},
): Gear => ({
  kind: "lens",
  label,
  mass_kg: 0.3,
  focal_min_mm,
  focal_max_mm,
  f_number_at_min,
  f_number_at_max,
  f_number_limit: 22,
  nearest_focus_m,
  ...more,
});

/** A lens that is part of its camera has no aperture to stop down and no mass of its own. */
const own = (body: string, limit: number) => ({ built_into: body, f_number_limit: limit, mass_kg: 0 });

/** The other camera of a phone: it shows the picture, and gathers less light. */
const SELFIE: Record<string, Gear> = {
  "selfie-camera": camera("Phone, selfie camera", [4.8, 3.6], 0.25, [50, 3200], {
    extra_crop: 1.1,
    face_tracking: true,
    video_width_px: 1920,
    flip_screen_width_m: 0.14,
  }),
  "selfie-lens": lens("Lens of the selfie camera", [3.1, 3.1], [2.2, 2.2], 0.25, own("selfie-camera", 2.2)),
};

const phone = (focals: [number, number]): Record<string, Gear> => ({
  camera: camera("Phone", [9.8, 7.35], 0.25, [50, 6400]),
  lens: lens("Phone lens", focals, [1.8, 1.8], 0.15, own("camera", 1.8)),
  ...SELFIE,
});

export const CAMERAS: readonly Usual[] = [
  { id: "phone", name: "Phone", art: "phone", gear: phone([6.5, 6.5]), stand: "tripod" },
  {
    id: "phone-two",
    name: "Phone with a 2× lens",
    art: "phone-two",
    gear: phone([6.5, 13]),
    stand: "tripod",
  },
  {
    id: "webcam",
    name: "Webcam",
    art: "webcam",
    gear: {
      camera: camera("Webcam", [6.4, 4.8], 0.15, [100, 3200], { video_width_px: 1920 }),
      lens: lens("Webcam lens", [4.9, 4.9], [2, 2], 0.1, own("camera", 2)),
    },
  },
  {
    id: "compact",
    name: "Compact with a zoom",
    art: "compact",
    gear: {
      camera: camera("Camera", [13.2, 8.8], 0.6, [100, 12_800]),
      lens: lens("Lens", [8.8, 25.7], [1.8, 2.8], 0.2),
    },
    stand: "tripod",
  },
  {
    id: "aps-c",
    name: "APS-C with a zoom",
    art: "camera",
    gear: {
      camera: camera("Camera", [23.5, 15.6], 0.6, [100, 25_600]),
      lens: lens("Lens", [16, 50], [2.8, 2.8], 0.3),
    },
    stand: "tripod",
  },
  {
    id: "full-frame",
    name: "Full frame with a zoom",
    art: "camera-large",
    gear: {
      camera: camera("Camera", [36, 24], 0.6, [100, 51_200]),
      lens: lens("Lens", [24, 70], [2.8, 2.8], 0.38),
    },
    stand: "tripod",
  },
];

/** Who has no camera borrows a phone: nothing is laid out without one, and what is worth buying is told against it. */
export const BORROWED: Usual = {
  id: "none",
  name: "Borrowed phone",
  art: "phone",
  gear: Object.fromEntries(
    Object.entries(phone([6.5, 6.5])).map(([id, gear]) => [id, { ...gear, state: "borrowed" }]),
  ),
};

const lamp = (
  label: string,
  shape: string,
  [width_m, height_m, depth_m]: [number, number, number],
  illuminance_at_1m_lx: number,
  [power_w, mass_kg]: [number, number],
  more: object = {},
): Gear =>
  ({
    kind: "light",
    label,
    shape,
    width_m,
    height_m,
    depth_m,
    illuminance_at_1m_lx,
    power_w,
    mass_kg,
    cct_min_k: 5600,
    cct_max_k: 5600,
    ...more,
  }) as Gear;

export const LAMPS: readonly Usual[] = [
  {
    id: "softbox",
    name: "Softbox or umbrella, about 65 cm",
    art: "softbox",
    gear: { softbox: lamp("Softbox", "octagon", [0.65, 0.65, 0.35], 2600, [60, 1.9]) },
    stand: "light-stand",
  },
  {
    id: "panel",
    name: "LED panel, about 30 × 20 cm",
    art: "panel",
    gear: { panel: lamp("LED panel", "rectangle", [0.3, 0.2, 0.06], 1200, [30, 0.9]) },
    stand: "light-stand",
  },
  {
    id: "ring",
    name: "Ring light, about 45 cm",
    art: "ring",
    gear: { ring: lamp("Ring light", "ring", [0.45, 0.33, 0.05], 900, [48, 1.5]) },
    stand: "light-stand",
  },
  {
    id: "bulb",
    name: "Desk lamp or bare bulb",
    art: "bulb",
    gear: {
      bulb: lamp("Lamp", "bulb", [0.06, 0.06, 0.1], 90, [11, 0.8], { cct_min_k: 2700, cct_max_k: 2700 }),
    },
    stand: "chair-back",
    standAtDesk: "desk-foot",
  },
  {
    id: "small",
    name: "Small light for the hair",
    art: "small",
    gear: {
      small: lamp("Small light", "rectangle", [0.18, 0.11, 0.05], 650, [12, 0.35], { cct_min_k: 3200 }),
    },
    stand: "boom-stand",
  },
  {
    id: "board",
    name: "White board or foam board",
    art: "board",
    gear: {
      board: {
        kind: "reflector",
        label: "White board",
        mass_kg: 0.3,
        reflectance: 0.85,
        width_m: 0.6,
        height_m: 0.9,
      },
    },
    stand: "light-stand",
  },
];

const microphone = (
  label: string,
  mounting: string,
  pattern_a: number,
  self_noise_dba: number,
  mass_kg: number,
): Gear => ({ kind: "microphone", label, mounting, pattern_a, self_noise_dba, mass_kg }) as Gear;

export const MICROPHONES: readonly Usual[] = [
  {
    id: "boom",
    name: "On a boom or arm",
    art: "boom",
    gear: { boom: microphone("Boom microphone", "boom", 0.25, 14, 0.2) },
    stand: "microphone-stand",
  },
  {
    id: "shotgun",
    name: "Shotgun on the camera",
    art: "shotgun",
    gear: { shotgun: microphone("Microphone on the camera", "on-camera", 0.366, 18, 0.15) },
  },
  {
    id: "lavalier",
    name: "Clipped on (lavalier)",
    art: "lavalier",
    gear: { lavalier: microphone("Lavalier", "lavalier", 1, 26, 0.05) },
  },
  {
    id: "desk",
    name: "On the desk",
    art: "desk",
    gear: { "desk-microphone": microphone("Desk microphone", "desk", 0.5, 12, 0.6) },
  },
  {
    id: "headset",
    name: "Headset",
    art: "headset",
    gear: { headset: microphone("Headset", "headset", 1, 26, 0.05) },
  },
];

const stand = (
  label: string,
  offers: string,
  [height_min_m, height_max_m]: [number, number],
  foot_radius_m: number,
  [payload_kg, mass_kg, reach_m]: [number, number, number],
): Gear => ({
  kind: "support",
  label,
  offers: offers.split(" "),
  height_min_m,
  height_max_m,
  foot_radius_m,
  payload_kg,
  mass_kg,
  reach_m,
});

export const STANDS = {
  tripod: stand("Tripod", "camera", [0.5, 1.75], 0.42, [4, 1.8, 0]),
  "light-stand": stand("Light stand", "light", [0.7, 2.4], 0.42, [5, 1.6, 0]),
  "boom-stand": stand("Boom stand", "light", [0.9, 2.4], 0.42, [4, 3.4, 1.1]),
  "desk-foot": stand("Arm of the desk lamp", "furniture light", [0.1, 0.75], 0.1, [1, 0.6, 0.4]),
  "chair-back": stand("Back of a chair", "light", [0.5, 1.25], 0.3, [2, 5, 0]),
  "microphone-stand": stand("Microphone stand with boom", "microphone", [0.8, 2.2], 0.35, [2, 2.6, 0.9]),
} as const;
