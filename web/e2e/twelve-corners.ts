// The twelve corners of twelve.ts: who, where, with what, as the first run asks for it.
import type { Page } from "@playwright/test";

import { step } from "./help";
import type { Told } from "./path";

/** One of the twelve. */
export interface Comer extends Told {
  /** What the first run does not ask: on the answers' pages, afterwards. */
  answers?: (page: Page) => Promise<void>;
  /** On the worktable. */
  table?: (page: Page) => Promise<void>;
}

const BARE = "Bare: hard walls and floor, hardly anything in it";
const SOME = "Some soft things: a rug, curtains or a bed";
const MUCH = "Much: carpet, heavy curtains, a sofa, full shelves";
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

export const CORNERS: Comer[] = [
  {
    name: "Phone only, bedroom",
    room: ["2.6", "3.4", "2.4"],
    door: "Left wall",
    window: "Front wall",
    furnishing: SOME,
    stature: "1.66",
    where: "Seated, no desk",
    purpose: "Talking to the lens: lesson or channel",
    camera: "Phone",
    budget: "0",
  },
  {
    name: "Webcam at a desk under a slope",
    room: ["3.2", "3.8", "2.5"],
    door: "Front wall",
    window: "Left wall",
    furnishing: SOME,
    stature: "1.74",
    where: "Seated at a desk",
    purpose: "Talking to the lens: lesson or channel",
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
    door: "Right wall",
    window: "Back wall",
    furnishing: SOME,
    stature: "1.81",
    where: "Seated, no desk",
    purpose: "Talking to the lens: lesson or channel",
    camera: "APS-C with a zoom",
    lamps: { [SOFTBOX]: 1 },
    budget: "150",
  },
  {
    name: "Full kit in a hallway",
    room: ["1.9", "5", "2.6"],
    door: "Front wall",
    window: "No window",
    furnishing: BARE,
    stature: "1.70",
    where: "Standing",
    purpose: "Talking to the lens: lesson or channel",
    camera: "Full frame with a zoom",
    lamps: { [SOFTBOX]: 2, "Small light for the hair": 1, "White board or foam board": 1 },
    microphones: { [BOOM]: 1 },
    budget: "100",
  },
  {
    name: "Application tape, bare living room",
    room: ["4.6", "5.2", "2.5"],
    door: "Left wall",
    window: "Right wall",
    furnishing: BARE,
    stature: "1.63",
    where: "Standing",
    purpose: "Audition or application tape",
    camera: "Phone with a 2× lens",
    lamps: { "LED panel, about 30 × 20 cm": 2 },
    budget: "120",
  },
  {
    name: "Keyed screen, 3.6 m square",
    room: ["3.6", "3.6", "2.5"],
    door: "Right wall",
    window: "Left wall",
    furnishing: SOME,
    stature: "1.76",
    where: "Seated, no desk",
    purpose: "In front of a key screen",
    camera: "APS-C with a zoom",
    lamps: { [SOFTBOX]: 3 },
    microphones: { [CLIPPED]: 1 },
    budget: "200",
  },
  {
    name: "Songs with an instrument",
    room: ["4.2", "4.8", "2.6"],
    door: "Back wall",
    window: "Front wall",
    furnishing: MUCH,
    stature: "1.84",
    where: "Seated, no desk",
    purpose: "Performance with an instrument",
    camera: "APS-C with a zoom",
    lamps: { [SOFTBOX]: 1, "Desk lamp or bare bulb": 2 },
    microphones: { [BOOM]: 1 },
    budget: "250",
  },
  {
    name: "Vertical shorts, standing",
    room: ["3", "4", "2.5"],
    door: "Back wall",
    window: "Right wall",
    furnishing: SOME,
    stature: "1.69",
    where: "Standing",
    purpose: "Vertical short",
    camera: "Phone",
    lamps: { "Ring light, about 45 cm": 1 },
    microphones: { [CLIPPED]: 1 },
    budget: "80",
  },
  {
    name: "Narrated lessons beside a loud computer",
    room: ["3.1", "3.3", "2.4"],
    door: "Front wall",
    window: "Right wall",
    furnishing: SOME,
    stature: "1.72",
    where: "Seated at a desk",
    purpose: "Narrated screen lesson",
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
    door: "Back wall",
    window: "Front wall",
    furnishing: SOME,
    stature: "1.71",
    where: "Seated, no desk",
    purpose: "Talking to the lens: lesson or channel",
    camera: "APS-C with a zoom",
    microphones: { [CLIPPED]: 1 },
    budget: "0",
    table: at("Finland, south", "180", "2026-12-15"),
  },
  {
    name: "Window alone, at the equator",
    room: ["3.4", "4.2", "2.5"],
    door: "Back wall",
    window: "Front wall",
    furnishing: SOME,
    stature: "1.71",
    where: "Seated, no desk",
    purpose: "Talking to the lens: lesson or channel",
    camera: "APS-C with a zoom",
    microphones: { [CLIPPED]: 1 },
    budget: "0",
    table: at("Ecuador, highlands", "90", "2026-03-21"),
  },
  {
    name: "Feet, inches and glasses",
    units: "Feet and inches",
    room: ["11' 2\"", "12' 6\"", "8'"],
    door: "Right wall",
    window: "Front wall",
    furnishing: SOME,
    stature: "5' 7\"",
    where: "Seated at a desk",
    purpose: "Talking to the lens: lesson or channel",
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
    door: "Front wall",
    window: "Right wall",
    furnishing: SOME,
    stature: "1.68",
    where: "Seated, no desk",
    purpose: "Talking to the lens: lesson or channel",
    camera: "None of these",
    budget: "400",
  },
];
