// The day: what the windows do to the picture hour by hour, what is done about them, and when it is good to record.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import type { Plan, Schemas } from "../api/client";
import type { StepProps } from "../table/step";
import { FIELD_SMALL } from "../ui/note";
import { Section } from "../ui/Section";
import { Trouble, Waiting } from "../ui/states";
import { Tabbed } from "../ui/tabs";
import { courseOf, today } from "./asked";
import { Carpet } from "./Carpet";
import { HourByHour } from "./HourByHour";
import { NoisyBoxes } from "./NoisyBoxes";
import { PlaceBoxes } from "./PlaceBoxes";
import { Ways, goodOf } from "./Ways";
import { Week } from "./Week";
import { WindowBoxes } from "./WindowBoxes";
import { windowsOf } from "./windows";

export function DayNow({ plan }: StepProps) {
  if (windowsOf(plan).length === 0)
    return <p>Without a window nothing changes by the hour: light it once, and keep the dials.</p>;
  const isPlaced = plan.brief.place != null && plan.brief.room.north_deg != null;
  return isPlaced ? <Placed plan={plan} /> : <PlaceBoxes plan={plan} />;
}

const PARTS = [
  ["day", "Hour by hour", null],
  ["watch", "What to watch", null],
  ["week", "Good hours", null],
  ["year", "The year", null],
] as const;

/** The day of a room of which it is known where it is and which way it looks. */
function Placed({ plan }: { plan: Plan }) {
  const [date, setDate] = useState(() => today(new Date()));
  const [part, setPart] = useState<string>("day");
  const course = useQuery(courseOf(plan, date));
  const of = (show: (course: Schemas["Course"]) => React.ReactNode) => (
    <>
      {course.isPending && <Waiting what="Following the sun" />}
      {course.isError && <Trouble error={course.error} onRetry={() => void course.refetch()} />}
      {course.data && show(course.data)}
    </>
  );
  return (
    <div>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1 pb-1 text-sm">
        <span className="w-40">
          <DateBox date={date} onDate={setDate} />
        </span>
        <span className="grow basis-52">{course.data && <SunLine course={course.data} />}</span>
      </div>
      <Tabbed label="The day" tabs={PARTS} value={part} onValue={setPart}>
        {part === "day" && of((data) => <HourByHour course={data} plan={plan} />)}
        {part === "watch" && of((data) => <ToWatch course={data} />)}
        {part === "week" && <Week plan={plan} from={date} />}
        {part === "year" && <Carpet plan={plan} date={date} onDate={setDate} />}
      </Tabbed>
    </div>
  );
}

function SunLine({ course }: { course: Schemas["Course"] }) {
  const { sunrise, sunset, golden, zone } = course;
  return (
    <>
      {sunrise && `Sunrise ${sunrise}. `}
      {sunset && `Sunset ${sunset}. `}
      {golden.length > 0 && `Low and warm ${golden.map(({ from, to }) => `${from}–${to}`).join(" and ")}. `}
      <span className="text-faint">{zone}.</span>
    </>
  );
}

/** What is to be said of the day, and how good it is with the windows as they are used now. */
function ToWatch({ course }: { course: Schemas["Course"] }) {
  const now = course.ways.find(({ is_now }) => is_now);
  return (
    <ul className="grid gap-2 text-sm">
      {now && <li>As it is now: {goodOf(now)}. Other ways are under Choices.</li>}
      {course.sentences.map((words) => (
        <li key={words}>{words}</li>
      ))}
    </ul>
  );
}

function DateBox({ date, onDate }: { date: string; onDate: (date: string) => void }) {
  return (
    <input
      aria-label="Date"
      className={FIELD_SMALL}
      type="date"
      value={date}
      onChange={({ target: { value } }) => /^\d{4}-\d\d-\d\d$/.test(value) && onDate(value)}
    />
  );
}

export function DayByHand({ plan, judged, units }: StepProps) {
  return (
    <div className="grid gap-4">
      {windowsOf(plan).length > 0 && <PlaceBoxes plan={plan} />}
      <WindowBoxes plan={plan} judged={judged} units={units} />
      <NoisyBoxes plan={plan} />
    </div>
  );
}

export function DayChoices({ plan }: StepProps) {
  const isPlaced = plan.brief.place != null && plan.brief.room.north_deg != null;
  const [date] = useState(() => today(new Date()));
  const course = useQuery({ ...courseOf(plan, date), enabled: isPlaced });
  if (windowsOf(plan).length === 0) return <p>The room has no window to choose about.</p>;
  return (
    <Section title={isPlaced ? "The window, and what comes of it today" : "The window"}>
      <Ways plan={plan} ways={course.data?.ways} />
    </Section>
  );
}
