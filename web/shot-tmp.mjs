import { chromium } from "@playwright/test";
const size = (process.argv[3] ?? "1280x800").split("x").map(Number);
const b = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox"] });
const p = await b.newPage({ viewport: { width: size[0], height: size[1] }, colorScheme: process.argv[4] ?? "light" });
p.on("console", (m) => m.type() === "error" && console.log("console:", m.text()));
p.on("pageerror", (e) => console.log("pageerror:", e.message));
const what = process.argv[2];
const U = "http://127.0.0.1:4198";
const snap = (n) => p.screenshot({ path: `/tmp/gen/${n}.png` });
const go = async (part) => { await p.goto(`${U}/corners/1/take?part=${part}`); await p.waitForTimeout(1500); };
if (what === "test") {
  await go("test"); await snap("p-test0");
  await p.setInputFiles('input[aria-label="Pick a recording"]', "/tmp/gen/take-hum.wav"); await p.waitForTimeout(3000); await snap("p-test1");
  await p.setInputFiles('input[aria-label="Pick a still"]', "/tmp/gen/still.png"); await p.waitForTimeout(1500); await snap("p-test2");
  await p.getByRole("button", { name: "Measure it" }).click(); await p.waitForTimeout(2500);
  await p.getByRole("list", { name: "Picture, measured", exact: true }).scrollIntoViewIfNeeded(); await snap("p-test3");
}
if (what === "shots") { await go("shots"); await snap("p-shots"); await p.getByRole("button", { name: "Add a shot" }).click(); await p.waitForTimeout(400); await snap("p-shotform"); }
if (what === "script") { await go("script"); await p.getByRole("textbox", { name: "Script" }).fill("Today we look at three leaves which most people take for one.\n\nTurn each over, and run a thumb along the rib. What you feel there tells them apart, in the dark as well as by day.\n\nNext week: the same three in winter, when all you have is the bud."); await p.getByRole("heading", { name: "Script" }).click(); await p.waitForTimeout(2500); await snap("p-script"); }
if (what === "record") {
  await go("record"); await snap("p-rec0");
  if (await p.getByRole("button", { name: "Begin a session" }).isVisible()) await p.getByRole("button", { name: "Begin a session" }).click();
  await p.waitForTimeout(800);
  await p.getByRole("button", { name: "Look through before the take" }).click(); await p.waitForTimeout(300); await snap("p-rec1");
  await p.getByRole("button", { name: "All in order" }).click();
  await p.getByRole("button", { name: "Start", exact: true }).click(); await p.waitForTimeout(1200); await snap("p-rec2"); await p.waitForTimeout(4500);
  await p.getByRole("button", { name: "Stop" , exact: true}).click(); await p.waitForTimeout(400); await p.getByRole("button", { name: "Keep", exact: true }).click(); await p.getByLabel("Note", { exact: true }).fill("Hands in frame"); await snap("p-rec3");
  await p.getByRole("button", { name: "Next" }).click(); await p.waitForTimeout(500);
}
if (what === "logbook") { await go("logbook"); await p.getByRole("button", { name: "Put them into good hours" }).click(); await p.waitForTimeout(3000); await snap("p-log"); }
await b.close();
