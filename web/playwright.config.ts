// End-to-end tests in Debian's Chromium against a server that the caller has started (FOGON_URL).
import { existsSync } from "node:fs";

import { defineConfig } from "@playwright/test";

const URL = process.env.FOGON_URL ?? "http://127.0.0.1:4170";

/** The one without a window of its own takes a third less time for the same pages. */
const HEADLESS = "/usr/bin/chromium-headless-shell";
const CHROMIUM = existsSync(HEADLESS) ? HEADLESS : "/usr/bin/chromium";

export default defineConfig({
  testDir: "e2e",
  // Tests of one file in order, three files at a time, since a page waits as often as it works: each test makes its own corners.
  workers: 3,
  forbidOnly: true,
  // How fast the page is is measured elsewhere: here only what never comes fails, on a machine that is slow and busy too.
  timeout: 600_000,
  expect: { timeout: 120_000 },
  reporter: [["list"]],
  outputDir: "test-results",
  use: {
    baseURL: URL,
    // Photographs take both processors: only where they are the subject.
    storageState: {
      cookies: [],
      origins: [{ origin: URL, localStorage: [{ name: "fogon.picture", value: '{"lines":true}' }] }],
    },
    viewport: { width: 1280, height: 800 },
    actionTimeout: 120_000,
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? CHROMIUM,
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--disable-background-networking",
        "--disable-component-update",
      ],
    },
  },
  projects: [
    { name: "tests", testMatch: "*.spec.ts", testIgnore: ["touch.spec.ts", "picture.spec.ts"] },
    {
      name: "touch",
      testMatch: "touch.spec.ts",
      use: { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true },
    },
    // Photographs are taken when nothing else wants the processors: run without other tests beside them.
    { name: "pictures", testMatch: "picture.spec.ts" },
    // By hand: they start a server of their own, or say figures.
    { name: "outage", testMatch: "outage.ts" },
    { name: "screenshots", testMatch: "screenshots.ts" },
    { name: "latency", testMatch: "latency.ts" },
    { name: "twelve", testMatch: "twelve.ts" },
    { name: "sizes", testMatch: "sizes.ts" },
    { name: "sentences", testMatch: "sentences.ts" },
  ],
});
