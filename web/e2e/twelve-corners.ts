// The twelve corners of twelve.ts: who, where, with what, as the first run asks for it.
import type { Page } from "@playwright/test";

import { step } from "./help";

export interface Told {
  name: string;
  units?: "Feet and inches";
  room: [width: string, depth: string, height: string];
  door: string;
  window: string;
  furnishing: "bare" | "some" | "much";
  stature: string;
  where: "desk" | "chair" | "standing";
  purpose: string;
  camera: string | null;
  lamps?: Record<string, number>;
  microphones?: Record<string, number>;
  budget: string;
  /** What the first run does not ask: on the answers' pages, afterwards. */
  answers?: (page: Page) => Promise<void>;
  /** On the worktable. */
  table?: (page: Page) => Promise<void>;
}

const SOFTBOX = "Softbox or umbrella, about 65 cm";
const BOOM = "On a boom or arm";
const CLIPPED = "Clipped on (lavalier)";

/** A place for the sun, which way its window looks, and a day. */
const at = (region: string, looks: string, date: string) => async (page: Page) => {
  await step(page, "Day").click();
  await page.getByLabel("Region").selectOption(region);
  const bearing = page.getByLabel(/looks to, degrees from north/);
  await bearing.fill(looks);
  await bearing.press("Enter");
  await page.getByLabel("Date").fill(date);
};

export const CORNERS: Told[] = [
  {
    name: "Phone only, bedroom",
    room: ["2.6", "3.4", "2.4"],
    door: "3",
    window: "2",
    furnishing: "some",
    stature: "1.66",
    where: "chair",
    purpose: "talk-to-lens",
    camera: "Phone",
    budget: "0",
  },
  {
    name: "Webcam at a desk under a slope",
    room: ["3.2", "3.8", "2.5"],
    door: "2",
    window: "3",
    furnishing: "some",
    stature: "1.74",
    where: "desk",
    purpose: "talk-to-lens",
    camera: "Webcam",
    lamps: { "Desk lamp or bare bulb": 1 },
    microphones: { Headset: 1 },
    budget: "60",
    answers: async (page) => {
      await page.getByRole("button", { name: "Add a slope" }).click();
      await page.getByLabel("Height at that wall").fill("1.1 m");
      await page.getByLabel("Meets the ceiling after").fill("1.3 m");
    },
  },
  {
    name: "Kit zoom and one softbox",
    room: ["3.5", "4.1", "2.5"],
    door: "1",
    window: "0",
    furnishing: "some",
    stature: "1.81",
    where: "chair",
    purpose: "talk-to-lens",
    camera: "APS-C with a zoom",
    lamps: { [SOFTBOX]: 1 },
    budget: "150",
  },
  {
    name: "Full kit in a hallway",
    room: ["1.9", "5", "2.6"],
    door: "2",
    window: "none",
    furnishing: "bare",
    stature: "1.70",
    where: "standing",
    purpose: "talk-to-lens",
    camera: "Full frame with a zoom",
    lamps: { [SOFTBOX]: 2, "Small light for the hair": 1, "White board or foam board": 1 },
    microphones: { [BOOM]: 1 },
    budget: "100",
  },
  {
    name: "Application tape, bare living room",
    room: ["4.6", "5.2", "2.5"],
    door: "3",
    window: "1",
    furnishing: "bare",
    stature: "1.63",
    where: "standing",
    purpose: "audition-tape",
    camera: "Phone with a 2× lens",
    lamps: { "LED panel, about 30 × 20 cm": 2 },
    budget: "120",
  },
  {
    name: "Keyed screen, 3.6 m square",
    room: ["3.6", "3.6", "2.5"],
    door: "1",
    window: "3",
    furnishing: "some",
    stature: "1.76",
    where: "chair",
    purpose: "keyed-background",
    camera: "APS-C with a zoom",
    lamps: { [SOFTBOX]: 3 },
    microphones: { [CLIPPED]: 1 },
    budget: "200",
  },
  {
    name: "Songs with an instrument",
    room: ["4.2", "4.8", "2.6"],
    door: "0",
    window: "2",
    furnishing: "much",
    stature: "1.84",
    where: "chair",
    purpose: "performance",
    camera: "APS-C with a zoom",
    lamps: { [SOFTBOX]: 1, "Desk lamp or bare bulb": 2 },
    microphones: { [BOOM]: 1 },
    budget: "250",
  },
  {
    name: "Vertical shorts, standing",
    room: ["3", "4", "2.5"],
    door: "0",
    window: "1",
    furnishing: "some",
    stature: "1.69",
    where: "standing",
    purpose: "vertical-short",
    camera: "Phone",
    lamps: { "Ring light, about 45 cm": 1 },
    microphones: { [CLIPPED]: 1 },
    budget: "80",
  },
  {
    name: "Narrated lessons beside a loud computer",
    room: ["3.1", "3.3", "2.4"],
    door: "2",
    window: "1",
    furnishing: "some",
    stature: "1.72",
    where: "desk",
    purpose: "screen-lesson",
    camera: "Webcam",
    lamps: { "LED panel, about 30 × 20 cm": 1 },
    microphones: { "On the desk": 1 },
    budget: "150",
    table: async (page) => {
      await step(page, "Sound").click();
      await page.getByRole("tab", { name: "By hand" }).click();
      await page.getByRole("button", { name: "Add computer" }).click();
      const level = page.getByRole("textbox", { name: /^Level at/ });
      await level.fill("48");
      await level.press("Enter");
    },
  },
  {
    name: "Window alone, 60 degrees north in winter",
    room: ["3.4", "4.2", "2.5"],
    door: "0",
    window: "2",
    furnishing: "some",
    stature: "1.71",
    where: "chair",
    purpose: "talk-to-lens",
    camera: "APS-C with a zoom",
    microphones: { [CLIPPED]: 1 },
    budget: "0",
    table: at("Finland, south", "180", "2026-12-15"),
  },
  {
    name: "Window alone, at the equator",
    room: ["3.4", "4.2", "2.5"],
    door: "0",
    window: "2",
    furnishing: "some",
    stature: "1.71",
    where: "chair",
    purpose: "talk-to-lens",
    camera: "APS-C with a zoom",
    microphones: { [CLIPPED]: 1 },
    budget: "0",
    table: at("Ecuador, highlands", "90", "2026-03-21"),
  },
  {
    name: "Feet, inches and glasses",
    units: "Feet and inches",
    room: ["11' 2\"", "12' 6\"", "8'"],
    door: "1",
    window: "2",
    furnishing: "some",
    stature: "5' 7\"",
    where: "desk",
    purpose: "talk-to-lens",
    camera: "Full frame with a zoom",
    lamps: { [SOFTBOX]: 1, "White board or foam board": 1 },
    microphones: { "Shotgun on the camera": 1 },
    budget: "200",
    answers: async (page) => {
      await page.getByRole("button", { name: "Next: You" }).click();
      await page.getByLabel("You wear glasses").check();
    },
  },
  {
    name: "Nothing owned, 400 to spend",
    room: ["3.3", "3.7", "2.5"],
    door: "2",
    window: "1",
    furnishing: "some",
    stature: "1.68",
    where: "chair",
    purpose: "talk-to-lens",
    camera: null,
    budget: "400",
  },
];
