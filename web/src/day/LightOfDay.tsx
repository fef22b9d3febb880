// Light of the windows on the face through a day under a clear and under an overcast sky, in stops beside what the picture needs.
import type { Schemas } from "../api/client";
import { useWidth } from "../ui/useWidth";

type Course = Schemas["Course"];

const HEIGHT = 160;
const LEFT = 34;
const BOTTOM = 24;
const TOP = 10;
/** Narrower, hours are named farther apart, px. */
const NARROW = 420;
/** Stops shown above and below what is needed. */
const SPAN = 7;

interface Props {
  course: Course;
  at: number;
  onAt: (at: number) => void;
}

export function LightOfDay({ course, at, onAt }: Props) {
  const [box, width] = useWidth(560);
  const hoursApart = width < NARROW ? 6 : 4;
  const { moments, needed_lx: needed, lamps_lx: lamps } = course;
  const zero = course.windows_wanted ? needed : lamps;
  if (zero <= 0 || moments.length < 2)
    return <p className="text-sm">There is no lamp to hold the windows against.</p>;
  const x = (index: number) => LEFT + ((width - LEFT) * index) / (moments.length - 1);
  const y = (stops: number) => TOP + (HEIGHT - TOP - BOTTOM) * (0.5 - stops / (2 * SPAN));
  const stops = (lx: number) => Math.max(-SPAN, Math.min(SPAN, Math.log2(Math.max(lx, 1e-3) / zero)));
  const line = (lx: (moment: Course["moments"][number]) => number) =>
    moments.map((moment, index) => `${x(index).toFixed(1)},${y(stops(lx(moment))).toFixed(1)}`).join(" ");
  const hours = moments.flatMap((moment, index) =>
    moment.clock.endsWith(":00") ? [[moment.clock, index] as const] : [],
  );
  return (
    <figure ref={box} className="max-w-2xl text-xs">
      <svg
        width={width}
        height={HEIGHT}
        className="block cursor-pointer"
        role="img"
        aria-label="Light of the windows on your face through the day"
        onClick={(event) => {
          const part = event.clientX - event.currentTarget.getBoundingClientRect().left;
          const index = Math.round(((part - LEFT) / (width - LEFT)) * (moments.length - 1));
          onAt(Math.max(0, Math.min(moments.length - 1, index)));
        }}
      >
        {[-6, -3, 0, 3, 6].map((one) => (
          <g key={one}>
            <line
              x1={LEFT}
              x2={width}
              y1={y(one)}
              y2={y(one)}
              className={one === 0 ? "stroke-ink" : "stroke-line"}
            />
            <text x={LEFT - 4} y={y(one) + 3} textAnchor="end" className="fill-faint" fontSize="12">
              {one > 0 ? `+${String(one)}` : String(one)}
            </text>
          </g>
        ))}
        {hours
          .filter(([clock]) => Number(clock.slice(0, 2)) % hoursApart === 0)
          .map(([clock, index]) => (
            <text
              key={index}
              x={x(index)}
              y={HEIGHT - 8}
              textAnchor={index === 0 ? "start" : "middle"}
              className="fill-faint"
              fontSize="12"
            >
              {clock}
            </text>
          ))}
        <polyline
          points={line((moment) => moment.clear.face_lx)}
          fill="none"
          className="stroke-ember"
          strokeWidth="2"
        />
        <polyline
          points={line((moment) => moment.overcast.face_lx)}
          fill="none"
          className="stroke-ink"
          strokeWidth="1.6"
          strokeDasharray="5 4"
        />
        <line
          x1={x(at)}
          x2={x(at)}
          y1={TOP}
          y2={HEIGHT - BOTTOM}
          className="stroke-ink"
          strokeWidth="1"
          strokeDasharray="1 3"
        />
      </svg>
      <figcaption>
        Light of the windows on your face, stops{" "}
        {course.windows_wanted ? "over what the picture needs" : "against the lamps"}: whole line under a
        clear sky, dashed under cloud.
      </figcaption>
    </figure>
  );
}
