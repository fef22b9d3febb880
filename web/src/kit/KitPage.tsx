// The design system on one page: type, spacing, colours, states, controls, drawings' inks. Nothing here is made for this
// page: it shows the parts that the views are made of.
import { useState } from "react";

import type { Finding, Reading } from "../api/client";
import { MARKS } from "../corner/Thread";
import { Findings } from "../reading/Findings";
import { Tiles } from "../reading/Tiles";
import { LengthBox, NumberBox } from "../ui/boxes";
import { Button } from "../ui/button";
import { Show } from "../ui/dialog";
import { Choice, TextField, Tick } from "../ui/fields";
import { Shell } from "../ui/Shell";
import { Standing } from "../ui/Standing";
import { Trouble, Waiting } from "../ui/states";
import { Term } from "../ui/terms";

const COLOURS = [
  ["paper", "what is written on"],
  ["desk", "what lies around it"],
  ["line", "edges"],
  ["faint", "what may be overlooked"],
  ["ink", "words and lines"],
  ["ember", "act on this"],
  ["ember-soft", "behind what asks to be acted on"],
  ["good", "ready"],
  ["good-soft", "behind what is ready"],
  ["surround", "beside the picture, neutral"],
] as const;

const SIZES = [
  ["text-2xl", "Numerals and page titles"],
  ["text-lg", "Headings"],
  ["text-base", "Text"],
  ["text-sm", "Labels"],
  ["text-xs", "Notes"],
] as const;

const STEPS = [1, 2, 3, 4, 6] as const;

const INKS = [
  "wall",
  "window",
  "swing",
  "furniture",
  "person",
  "chair",
  "camera",
  "light",
  "lamp-face",
  "board",
  "microphone",
  "stand",
  "feet",
  "field",
  "sharp",
  "intruder",
] as const;

function example(standing: Reading["standing"], value: number): Reading {
  return {
    id: `kit.${standing}.example`,
    label: `A ${standing === "plain" ? "plain" : standing} reading`,
    value,
    unit: "\u00b0",
    band: standing === "plain" ? null : [20, 30, 45, 60],
    standing,
    score: null,
    uncertainty: 2,
    aspect: null,
    from: standing === "fair" ? "measured" : "computed",
    measured_range: null,
    working: {
      formula: "how it is worked out",
      inputs: [{ name: "an input", value: 1.5, unit: "m", from: "assumed" }],
      source: "where the formula is published",
      note: "",
    },
  };
}

const finding = (severity: Finding["severity"]): Finding => ({
  id: `kit.${severity}`,
  severity,
  sentence: `What a finding of the kind “${severity}” says.`,
  reason: "Why it matters.",
  advice: "What to do about it.",
  evidence: [],
  source: "where the rule comes from",
  school: null,
  caution: severity === "stop" ? "What the usual caution is." : null,
  fix: null,
});

export function KitPage() {
  const [text, setText] = useState("3.40 m");
  const [metres, setMetres] = useState(1.42);
  const [degrees, setDegrees] = useState(40);
  const [ticked, setTicked] = useState(true);
  return (
    <Shell title="Kit: the parts of every view">
      <div className="grid gap-9">
        <Part title="Type">
          {SIZES.map(([size, use]) => (
            <p key={size} className={size}>
              {use} <span className="font-bold">0123456789</span>
            </p>
          ))}
          <p>
            A word of the trade explains itself: <Term word="Headroom">headroom</Term>.
          </p>
        </Part>
        <Part title="Colours">
          <ul className="grid grid-cols-2 gap-3 sm:grid-cols-4">
            {COLOURS.map(([name, use]) => (
              <li key={name}>
                <span
                  className="border-line block h-10 rounded border"
                  style={{ background: `var(--color-${name})` }}
                />
                <span className="text-sm font-semibold">{name}</span>{" "}
                <span className="text-faint text-sm">{use}</span>
              </li>
            ))}
          </ul>
        </Part>
        <Part title="Spacing">
          <ul className="flex flex-wrap items-end gap-4">
            {STEPS.map((step) => (
              <li key={step} className="text-sm">
                <span className="bg-faint block" style={{ width: step * 4, height: step * 4 }} />
                {step * 4} px
              </li>
            ))}
          </ul>
        </Part>
        <Part title="States, by shape and word">
          <ul className="flex flex-wrap gap-5">
            {Object.entries(MARKS).map(([state, [mark, words]]) => (
              <li key={state}>
                <span aria-hidden="true" className={state === "stop" || state === "fix" ? "text-ember" : ""}>
                  {mark}
                </span>{" "}
                {words}
              </li>
            ))}
          </ul>
          <p className="mt-3 flex flex-wrap gap-3">
            <Standing ready words="Ready: record." />
            <Standing ready={false} words="Not ready: 1 thing stands in the way." />
          </p>
        </Part>
        <Part title="Buttons and a dialog">
          <div className="flex flex-wrap gap-3">
            <Button look="act">Act on this</Button>
            <Button>Do something else</Button>
            <Button disabled>Not now</Button>
            <Button aria-pressed="true">Pressed</Button>
            <Button look="quiet">Quiet</Button>
            <Show title="A dialog" trigger={<Button>Open a dialog</Button>}>
              <p>It takes the focus and gives it back.</p>
            </Show>
          </div>
        </Part>
        <Part title="Fields">
          <div className="grid max-w-3xl gap-4 sm:grid-cols-3">
            <TextField label="Typed" help="Lengths in any unit." value={text} onText={setText} />
            <TextField
              label="Refused"
              value="very wide"
              problem="“very wide” is not a length."
              onText={() => undefined}
            />
            <Choice
              label="Chosen"
              value="a"
              onPick={() => undefined}
              options={[
                ["a", "The first"],
                ["b", "The second"],
              ]}
            />
            <LengthBox
              label="Focus distance"
              value={metres}
              units="metric"
              within={[0.05, 50]}
              onCommit={setMetres}
            />
            <NumberBox label="Azimuth" unit="°" value={degrees} within={[-180, 180]} onCommit={setDegrees} />
            <Tick label="Ticked" checked={ticked} onTick={setTicked} />
          </div>
        </Part>
        <Part title="Tiles of readings">
          <Tiles
            readings={[example("good", 40), example("fair", 25), example("poor", 70), example("plain", 12)]}
            units="metric"
            onMeasured={() => undefined}
          />
        </Part>
        <Part title="Findings, a line each">
          <Findings
            findings={[finding("stop"), finding("fix"), finding("consider")]}
            onApply={() => undefined}
            units="metric"
          />
        </Part>
        <Part title="Inks of the drawings">
          <ul className="grid grid-cols-3 gap-3 sm:grid-cols-7">
            {INKS.map((ink) => (
              <li key={ink} className="text-sm">
                <svg viewBox="0 0 60 36" className="drawing bg-paper" aria-hidden="true">
                  <rect x="6" y="6" width="48" height="24" className={`ink-${ink}`} />
                </svg>
                {ink}
              </li>
            ))}
          </ul>
        </Part>
        <Part title="Waiting and trouble">
          <Waiting what="Working it out" />
          <Trouble error={new Error("unreachable")} onRetry={() => undefined} />
        </Part>
      </div>
    </Shell>
  );
}

function Part({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section aria-label={title}>
      <h2 className="mb-3 text-lg font-bold">{title}</h2>
      {children}
    </section>
  );
}
