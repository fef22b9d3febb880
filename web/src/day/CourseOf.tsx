// A day in the corner: the hour by a slider, where the sun lies at that hour, the light on the face through the day, what is said of it.
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";

import type { Plan, Schemas } from "../api/client";
import { useSunlight } from "../drawing/sunlight";
import type { Vector } from "../table/handles";
import { Button } from "../ui/button";
import { TextField } from "../ui/fields";
import { Section } from "../ui/Section";
import { Slide } from "../ui/Slide";
import { Trouble, Waiting } from "../ui/states";
import { courseOf } from "./asked";
import { LightOfDay } from "./LightOfDay";
import { SPOILS } from "./words";

type Course = Schemas["Course"];
type Moment = Schemas["CourseMoment"];

/** Between two steps of a day that is played, ms. */
const PLAYED_MS = 120;

interface Props {
  plan: Plan;
  date: string;
  onDate: (date: string) => void;
}

export function CourseOf({ plan, date, onDate }: Props) {
  const course = useQuery(courseOf(plan, date));
  return (
    <Section title="The day" aside={<DateBox date={date} onDate={onDate} />}>
      {course.isPending && <Waiting what="Following the sun" />}
      {course.isError && <Trouble error={course.error} onRetry={() => void course.refetch()} />}
      {course.data && <Told course={course.data} />}
    </Section>
  );
}

function DateBox({ date, onDate }: { date: string; onDate: (date: string) => void }) {
  return (
    <TextField
      label="Date"
      type="date"
      value={date}
      onText={(text) => /^\d{4}-\d\d-\d\d$/.test(text) && onDate(text)}
    />
  );
}

function Told({ course }: { course: Course }) {
  const { moments } = course;
  const [at, setAt] = useState(() => Math.floor(moments.length / 2));
  const [playing, setPlaying] = useState(false);
  useEffect(() => {
    if (!playing) return;
    const timer = window.setInterval(() => setAt((now) => (now + 1) % moments.length), PLAYED_MS);
    return () => window.clearInterval(timer);
  }, [playing, moments.length]);
  const moment = moments[Math.min(at, moments.length - 1)];
  const { show } = useSunlight();
  useEffect(() => {
    show((moment?.patches ?? []).map(({ outline_m }) => outline_m as Vector[]));
    return () => show([]);
  }, [moment, show]);
  if (!moment) return null;
  return (
    <div className="grid gap-3">
      <p className="text-sm">
        {course.sunrise && `Sunrise ${course.sunrise}. `}
        {course.sunset && `Sunset ${course.sunset}. `}
        {course.golden.length > 0 &&
          `Low and warm ${course.golden.map(({ from, to }) => `${from}–${to}`).join(" and ")}. `}
        <span className="text-faint">{course.zone}.</span>
      </p>
      {course.sentences.map((words) => (
        <p key={words} className="text-sm">
          {words}
        </p>
      ))}
      <div>
        <div className="flex items-center gap-3">
          <Button size="small" onClick={() => setPlaying(!playing)} aria-pressed={playing}>
            {playing ? "Stop" : "Play the day"}
          </Button>
          <span className="min-w-12 font-bold">{moment.clock}</span>
          <div className="grow">
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
    </div>
  );
}

/** How the light is at a moment. */
function said(course: Course, moment: Moment): string {
  if (moment.sun_elevation_deg < -6) return "It is night.";
  const sun = `Sun ${moment.sun_elevation_deg.toFixed(0)}° high in ${compass(moment.sun_azimuth_deg)}.`;
  if (moment.spoils.length === 0) return `${sun} The light holds.`;
  const words = moment.spoils.map((one) => SPOILS[one]).join(", ");
  return `${sun} ${words.charAt(0).toUpperCase()}${words.slice(1)}${course.windows_wanted ? "" : ", if the window is not covered"}.`;
}

const WINDS = [
  "the north",
  "the north-east",
  "the east",
  "the south-east",
  "the south",
  "the south-west",
  "the west",
  "the north-west",
];

export const compass = (azimuth: number): string => WINDS[Math.round(azimuth / 45) % 8] ?? "";
