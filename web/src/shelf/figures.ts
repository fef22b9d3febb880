// Which figures of a kind of gear can be typed on the shelf, and how a thing is told in a few words.
import type { Gear } from "../api/client";
import { sentence } from "../table/show";
import { fixed, formatLength, type UnitSystem } from "../units/length";

export type Kind = Gear["kind"];

export const KINDS: readonly (readonly [Kind, string])[] = [
  ["camera", "Cameras"],
  ["lens", "Lenses"],
  ["light", "Lights"],
  ["reflector", "Boards"],
  ["microphone", "Microphones"],
  ["support", "Stands and fixings"],
  ["monitor", "Screens and mirrors"],
  ["backdrop", "Backdrops"],
  ["treatment", "To reduce echo"],
  ["card", "Cards"],
  ["power", "Batteries and power"],
  ["recorder", "Recorders"],
  ["interface", "Interfaces"],
  ["cable", "Cables"],
  ["accessory", "Other things"],
];

export interface Figure {
  field: string;
  label: string;
  unit: string;
  /** What stands in while nothing is told; none for a figure that is always there. */
  without?: string;
  digits?: number;
  /** Where its limits stand, if not with its kind. */
  type?: string;
}

const SIZE: Figure[] = [
  { field: "width_m", label: "Width", unit: "m", digits: 2 },
  { field: "height_m", label: "Height", unit: "m", digits: 2 },
];

const INPUT: Figure[] = [
  { field: "input_noise_dbu", label: "Noise of the input", unit: "dBu", without: "not given", digits: 0 },
  { field: "full_scale_dbu", label: "Full scale at no gain", unit: "dBu", without: "4" },
  { field: "gain_max_db", label: "Highest gain", unit: "dB", without: "60", digits: 0 },
];

export const FIGURES: Partial<Record<Kind, { type: string; figures: Figure[] }>> = {
  camera: {
    type: "GearCamera",
    figures: [
      { field: "extra_crop", label: "Crop in video", unit: "×", digits: 2 },
      { field: "video_width_px", label: "Recorded width", unit: "px", without: "3840", digits: 0 },
      { field: "bitrate_mbit_s", label: "Data rate", unit: "Mbit/s", without: "100" },
      { field: "clip_limit_min", label: "Clip limit", unit: "min", without: "never" },
      { field: "battery_wh", label: "Battery", unit: "Wh", without: "not given" },
      { field: "draw_w", label: "Power while recording", unit: "W", without: "5" },
      {
        field: "headroom_stops",
        label: "Headroom over grey",
        unit: "stops",
        without: "2.97",
        digits: 2,
      },
      { field: "flip_screen_width_m", label: "Flip screen, width", unit: "m", without: "none", digits: 3 },
    ],
  },
  lens: {
    type: "GearLens",
    figures: [
      { field: "focal_min_mm", label: "Shortest focal length", unit: "mm" },
      { field: "focal_max_mm", label: "Longest focal length", unit: "mm" },
      { field: "f_number_at_min", label: "Widest, short end", unit: "f/" },
      { field: "f_number_at_max", label: "Widest, long end", unit: "f/" },
      { field: "nearest_focus_m", label: "Nearest focus", unit: "m", digits: 2 },
      { field: "filter_mm", label: "Filter thread", unit: "mm", without: "not given", digits: 0 },
    ],
  },
  support: {
    type: "GearSupport",
    figures: [
      { field: "height_min_m", label: "Lowest", unit: "m", digits: 2 },
      { field: "height_max_m", label: "Highest", unit: "m", digits: 2 },
      { field: "foot_radius_m", label: "Radius of the feet", unit: "m", digits: 2 },
      { field: "payload_kg", label: "Payload", unit: "kg" },
      { field: "reach_m", label: "Reach", unit: "m", digits: 2 },
    ],
  },
  light: {
    type: "GearLight",
    figures: [
      ...SIZE,
      {
        field: "illuminance_at_1m_lx",
        label: "As used, at 1 m",
        unit: "lx",
        without: "not given",
        digits: 0,
      },
      { field: "beam_deg", label: "Beam", unit: "°", without: "120", digits: 0 },
      { field: "bare_at_1m_lx", label: "Bare lamp, at 1 m", unit: "lx", without: "not given", digits: 0 },
      { field: "bare_beam_deg", label: "Bare beam", unit: "°", without: "55", digits: 0 },
      { field: "flux_lm", label: "Bare lamp", unit: "lm", without: "not given", digits: 0 },
      { field: "modifier_efficiency", label: "Modifier efficiency", unit: "", without: "usual", digits: 2 },
      { field: "power_w", type: "Common", label: "Power", unit: "W", without: "not given", digits: 0 },
      {
        field: "fan_noise_1m_dba",
        type: "Common",
        label: "Fan, at 1 m",
        unit: "dBA",
        without: "silent",
        digits: 0,
      },
    ],
  },
  reflector: {
    type: "GearPanel",
    figures: [
      ...SIZE,
      { field: "reflectance", label: "Reflectance", unit: "", digits: 2 },
      { field: "mirror_part", label: "Mirror share of it", unit: "", digits: 2 },
      { field: "transmittance", label: "Transmittance", unit: "", without: "nothing", digits: 2 },
    ],
  },
  backdrop: { type: "GearBackdrop", figures: SIZE },
  treatment: {
    type: "GearTreatment",
    figures: [
      ...SIZE,
      { field: "thickness_m", label: "Thickness, if porous", unit: "m", without: "as the table", digits: 3 },
      { field: "air_gap_m", label: "Gap behind it", unit: "m", without: "0", digits: 3 },
      {
        field: "flow_resistivity_pa_s_m2",
        label: "Flow resistivity",
        unit: "Pa s/m²",
        without: "as the table",
        digits: 0,
      },
    ],
  },
  microphone: {
    type: "GearMicrophone",
    figures: [
      { field: "pattern_a", label: "Pattern: 1 all around, 0.5 cardioid", unit: "", digits: 2 },
      { field: "tube_m", label: "Tube", unit: "m", digits: 2 },
      { field: "self_noise_dba", label: "Self-noise", unit: "dBA", digits: 0 },
      { field: "sensitivity_mv_pa", label: "Sensitivity", unit: "mV/Pa", without: "not given" },
    ],
  },
  interface: { type: "GearThing", figures: INPUT },
  recorder: { type: "GearThing", figures: INPUT },
  card: {
    type: "GearThing",
    figures: [
      { field: "capacity_gb", label: "Capacity", unit: "GB", without: "not given", digits: 0 },
      { field: "write_mb_s", label: "Sustained writing", unit: "MB/s", without: "not given", digits: 0 },
    ],
  },
  power: {
    type: "GearThing",
    figures: [{ field: "energy_wh", label: "Energy", unit: "Wh", without: "not given" }],
  },
  monitor: {
    type: "GearMonitor",
    figures: [
      { field: "width_m", label: "Width", unit: "m", without: "usual", digits: 2 },
      { field: "width_px", label: "Pixels across", unit: "px", without: "1920", digits: 0 },
    ],
  },
};

/** How bright a lamp is known to be, by the figure that is trusted most. */
function light(gear: Extract<Gear, { kind: "light" }>, units: UnitSystem): string {
  const near = formatLength(1, units, 0);
  if (gear.measured_lx != null && gear.measured_at_m != null)
    return `${fixed(gear.measured_lx, 0)} lx measured at ${formatLength(gear.measured_at_m, units)}`;
  if (gear.illuminance_at_1m_lx != null) return `${fixed(gear.illuminance_at_1m_lx, 0)} lx at ${near}`;
  if (gear.bare_at_1m_lx != null) return `${fixed(gear.bare_at_1m_lx, 0)} lx at ${near} without modifier`;
  if (gear.flux_lm != null) return `${fixed(gear.flux_lm, 0)} lm`;
  return `${fixed(gear.power_w ?? 0, 0)} W, its light assumed`;
}

/** Roughly how much a lamp gives at 1 m, lx, to put lamps in order. */
export function brightness(gear: Extract<Gear, { kind: "light" }>): number {
  if (gear.measured_lx != null && gear.measured_at_m != null)
    return gear.measured_lx * gear.measured_at_m * gear.measured_at_m;
  return (
    gear.illuminance_at_1m_lx ??
    (gear.bare_at_1m_lx ?? (gear.flux_lm ?? 95 * (gear.power_w ?? 0)) / 2) * (gear.modifier_efficiency ?? 0.5)
  );
}

/** The figure that tells most of a thing. */
export function told(gear: Gear, units: UnitSystem): string {
  switch (gear.kind) {
    case "camera":
      return `${fixed(gear.sensor_width_mm, 1)} × ${fixed(gear.sensor_height_mm, 1)} mm`;
    case "lens":
      return gear.focal_min_mm === gear.focal_max_mm
        ? `${fixed(gear.focal_min_mm, 0)} mm`
        : `${fixed(gear.focal_min_mm, 0)} to ${fixed(gear.focal_max_mm, 0)} mm`;
    case "light":
      return light(gear, units);
    case "support":
      return `carries ${sentence(gear.payload_kg, "kg", units)} to ${formatLength(gear.height_max_m, units, 1)}`;
    case "microphone":
      return gear.mounting;
    case "treatment":
      return `${formatLength(gear.width_m, units)} × ${formatLength(gear.height_m, units)}`;
    case "backdrop":
      return `${formatLength(gear.width_m, units)} wide`;
    case "card":
      return gear.capacity_gb ? `${fixed(gear.capacity_gb, 0)} GB` : "";
    case "power":
      return gear.energy_wh ? `${fixed(gear.energy_wh, 0)} Wh` : "";
    default:
      return "";
  }
}
