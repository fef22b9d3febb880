// Tests of the page's own arithmetic, its store and its parts; the browser's tests are in e2e and run by Playwright.
import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: ["src/**/*.test.{ts,tsx}"],
    // One process reads the page's modules once for all files: a third of the time.
    pool: "threads",
    isolate: false,
  },
});
