// A day in the corner by a slider: where the sun lies at each hour, the light on the face through the day, what the windows do then.
import { ToggleGroup } from "radix-ui";
import { useEffect, useState } from "react";

import type { Plan, Schemas } from "../api/client";
import { useSunlight } from "../drawing/sunlight";
import type { Vector } from "../table/handles";
import { Button } from "../ui/button";
import { Slide } from "../ui/Slide";
import { Table } from "../ui/Table";
import { LightOfDay } from "./LightOfDay";
import { compass, SPOILS, stops } from "./words";
import { windowsOf } from "./windows";

type Course = Schemas["Course"];
type Moment = Schemas["CourseMoment"];
type WindowLight = Schemas["WindowLight"];
type Sky = "clear" | "overcast";

/** Between two steps of a day that is played, ms. */
const PLAYED_MS = 120;

export function HourByHour({ course, plan }: { course: Course; plan: Plan }) {
  const { moments } = course;
  const [at, setAt] = useState(() => Math.floor(moments.length / 2));
  const [sky, setSky] = useState<Sky>("clear");
  const [playing, setPlaying] = useState(false);
  useEffect(() => {
    if (!playing) return;
    const timer = window.setInterval(() => setAt((now) => (now + 1) % moments.length), PLAYED_MS);
    return () => window.clearInterval(timer);
  }, [playing, moments.length]);
  const moment = moments[Math.min(at, moments.length - 1)];
  const { look } = useSunlight();
  const isCurtained = windowsOf(plan).some(([, { curtain }]) => curtain === "white");
  useEffect(() => {
    if (!moment) return;
    const under = sky === "clear" ? "clear sky" : "grey sky";
    const before = isCurtained ? "white curtain drawn" : "window uncovered";
    look({
      lies: sky === "clear" ? moment.patches.map(({ outline_m }) => outline_m as Vector[]) : [],
      hour: { utc: moment.utc, sky },
      words: `${moment.clock}, ${under}, ${before}`,
    });
    return () => look(null);
  }, [moment, sky, isCurtained, look]);
  if (!moment) return null;
  return (
    <div className="grid gap-3">
      <div>
        <div className="flex flex-wrap items-center gap-3">
          <Button size="small" onClick={() => setPlaying(!playing)} aria-pressed={playing}>
            {playing ? "Stop" : "Play the day"}
          </Button>
          <SkyChoice sky={sky} onSky={setSky} />
          <span className="min-w-12 font-bold">{moment.clock}</span>
          <div className="min-w-40 grow">
            <Slide
              name="Time of day"
              value={at}
              within={[0, moments.length - 1]}
              step={1}
              words={(index) => moments[index]?.clock ?? ""}
              onSlide={setAt}
            />
          </div>
        </div>
        <p className="min-h-6 text-sm" role="status">
          {said(course, moment)}
        </p>
      </div>
      <LightOfDay course={course} at={at} onAt={setAt} />
      <AtTheHour course={course} moment={moment} />
    </div>
  );
}

function SkyChoice({ sky, onSky }: { sky: Sky; onSky: (sky: Sky) => void }) {
  const item = (value: Sky, name: string) => (
    <ToggleGroup.Item
      value={value}
      className="data-[state=on]:bg-ember-soft min-h-8 cursor-pointer px-2.5 text-sm data-[state=on]:font-semibold"
    >
      {name}
    </ToggleGroup.Item>
  );
  return (
    <ToggleGroup.Root
      type="single"
      aria-label="The sky that is shown"
      className="border-line bg-paper divide-line flex divide-x overflow-hidden rounded-md border"
      value={sky}
      onValueChange={(value) => value !== "" && onSky(value as Sky)}
    >
      {item("clear", "Clear")}
      {item("overcast", "Grey")}
    </ToggleGroup.Root>
  );
}

/** How the light is at a moment. */
function said(course: Course, moment: Moment): string {
  if (moment.sun_elevation_deg < -6) return "It is night.";
  const sun = `Sun ${moment.sun_elevation_deg.toFixed(0)}° high in ${compass(moment.sun_azimuth_deg)}.`;
  if (moment.spoils.length === 0) return `${sun} The light holds.`;
  const words = moment.spoils.map((one) => SPOILS[one]).join(", ");
  return `${sun} ${words.charAt(0).toUpperCase()}${words.slice(1)}${course.windows_wanted || moment.spoils.includes("no-lamp") ? "" : ", if the window is not covered"}.`;
}

/** What the windows do to the picture at a moment under either sky. */
function AtTheHour({ course, moment }: { course: Course; moment: Moment }) {
  if (moment.overcast.face_lx < 0.5 && moment.clear.face_lx < 0.5) return null;
  const zero = course.windows_wanted ? course.needed_lx : course.lamps_lx;
  const rows: [string, (light: WindowLight) => string][] = [
    ["On your face", ({ face_lx }) => `${face_lx.toFixed(0)} lx`],
    ...(zero > 0
      ? [
          [
            course.windows_wanted ? "Over what the picture needs" : "Against your lamps",
            ({ face_lx }: WindowLight) => `${stops(Math.log2(face_lx / zero))} stops`,
          ] as [string, (light: WindowLight) => string],
        ]
      : []),
    ["Comes from", ({ azimuth_deg: angle }) => (angle == null ? "–" : sideOf(angle))],
    ["Bright cheek over dark one", ({ ratio }) => (ratio == null ? "–" : `${ratio.toFixed(1)} : 1`)],
    [
      "Behind you, against your face",
      ({ background_lx, face_lx }) =>
        background_lx > 0 && face_lx > 0 ? `${stops(Math.log2(background_lx / face_lx))} stops` : "–",
    ],
    ["Colour", ({ cct_k }) => (cct_k == null ? "–" : `${String(Math.round(cct_k / 100) * 100)} K`)],
  ];
  return (
    <Table>
      <thead>
        <tr>
          <th>Light of the window at {moment.clock}</th>
          <th>Clear sky</th>
          <th>Grey sky</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, words]) => (
          <tr key={name}>
            <td>{name}</td>
            <td className="numeral">{words(moment.clear)}</td>
            <td className="numeral">{words(moment.overcast)}</td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

const sideOf = (angle: number): string =>
  Math.abs(angle) < 3 ? "the lens" : `${Math.abs(angle).toFixed(0)}° camera ${angle > 0 ? "right" : "left"}`;
