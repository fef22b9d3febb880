// The fields of each page of the brief.
import { useQuery } from "@tanstack/react-query";

import { FURNISHINGS } from "../room/surfaces";
import { api } from "../api/client";
import { Choice, TextField, Tick } from "../ui/fields";
import { freeId } from "../ui/ids";
import { formatGap, formatLength, type UnitSystem } from "../units/length";
import { FORMATS, type Draft, type FurnitureDraft } from "./draft";
import type { Change } from "./change";
import { Openings } from "./Openings";
import { Overhead } from "./Overhead";
import { KINDS, newPiece, withKind } from "./pieces";
import type { Problems } from "./reader";
import { ShapeChoice, WalkRound } from "./Shape";
import { wallNames } from "./walls";

export const STEPS = [
  {
    title: "Room",
    lead: "Measure with a tape, wall to wall. Lengths in metres or feet and inches, mixed as you like.",
  },
  { title: "You", lead: "Who is filmed, and where they sit." },
  { title: "Purpose", lead: "What the recording is for decides shot, eyes and background." },
  {
    title: "What you own",
    lead: "Kinds and figures; labels do not matter. Light figures as used, with the modifier on.",
  },
  {
    title: "Today",
    lead: "If something already stands: free moves start from there. Left and back wall as in the drawing.",
  },
  { title: "Money", lead: "What you could spend. Free moves come first anyway." },
] as const;

const FIELDS: string[][] = [
  [
    "units",
    "name",
    "shape",
    "walk",
    "walk.",
    "slopes.",
    "beams.",
    "width",
    "depth",
    "height",
    "openings.",
    "volts",
    "hertz",
    "breaker",
    "furnishing",
    "furniture.",
  ],
  ["stature", "posture", "seatHeight", "eyeHeight", "lean", "seatAt", "glasses"],
  ["purpose"],
  [
    "format",
    "focalMin",
    "focalMax",
    "fMin",
    "fMax",
    "nearest",
    "isoMax",
    "key",
    "keyWidth",
    "keyHeight",
    "keyLux",
    "keyWatts",
    "fill",
    "fillWidth",
    "fillHeight",
    "fillLux",
    "back",
    "backLux",
    "microphone",
    "tripods",
    "lightStands",
    "boomStands",
    "microphoneStands",
  ],
  [
    "today",
    "todayX",
    "todayY",
    "todayLensX",
    "todayLensY",
    "todayLensZ",
    "todayFocal",
    "todayF",
    "todayIso",
    "todayKeyX",
    "todayKeyY",
    "todayKeyZ",
    "todayMicX",
    "todayMicY",
    "todayMicZ",
  ],
  ["budget", "currency"],
];

/** The fields that a page shows; a name that ends in a dot stands for all that begin so. */
export const fieldsOf = (step: number): string[] => FIELDS[step] ?? [];

/** Each wall is measured from the corner where it begins, going round by the right. */
const CORNERS = ["back-left", "back-right", "front-right", "front-left"];
const PURPOSES = [
  ["talk-to-lens", "Talk to the lens", "Lesson or channel: chest up, eyes in the lens."],
  ["audition-tape", "Audition or application tape", "Eyes just beside the lens, plain wall, level camera."],
  ["vertical-short", "Vertical short", "Portrait, waist up, shoulders inside the width."],
  ["screen-lesson", "Narrated screen lesson", "Head and shoulders, plain background; sound before picture."],
  ["performance", "Performance with an instrument", "Wide enough for you and the instrument."],
  ["keyed-background", "Keyed background", "Before an even screen of one colour, to be replaced."],
] as const;

interface Props {
  step: number;
  draft: Draft;
  problems: Problems;
  change: Change;
}

export function StepFields({ step, draft, problems, change }: Props) {
  const text = (name: string, label: string, help?: string, placeholder?: string) => (
    <TextField
      label={label}
      help={help}
      placeholder={placeholder}
      problem={problems[name]}
      value={draft.texts[name] ?? ""}
      onChange={(value) => change({ texts: { [name]: value } })}
    />
  );
  const choice = (
    name: string,
    label: string,
    options: readonly (readonly [string, string])[],
    help?: string,
  ) => (
    <Choice
      label={label}
      help={help}
      problem={problems[name]}
      value={draft.texts[name] ?? ""}
      options={options}
      onChange={(value) => change({ texts: { [name]: value } })}
    />
  );
  const tick = (name: string, label: string) => (
    <Tick
      label={label}
      checked={draft.texts[name] === "yes"}
      onChange={(on) => change({ texts: { [name]: on ? "yes" : "no" } })}
    />
  );
  const is = (name: string) => draft.texts[name] === "yes";
  const imperial = draft.texts.units === "imperial";
  const units: UnitSystem = imperial ? "imperial" : "metric";
  const near = formatLength(1, units, 0);
  const rectangle = draft.texts.shape !== "walk";
  const walls = wallNames(rectangle ? 4 : draft.legs.length, rectangle);
  const fromCorner = (wall: string) =>
    rectangle
      ? `From the ${CORNERS[Number(wall)] ?? ""} corner`
      : `From corner ${walls[Number(wall)]?.[1]?.[0] ?? "a"}`;
  switch (step) {
    case 0:
      return (
        <>
          <Group>
            {text("name", "Name of the corner", undefined, "My corner")}
            {choice("units", "Read and print in", [
              ["metric", "metres"],
              ["imperial", "feet and inches"],
            ])}
          </Group>
          <Group title="Size">
            <ShapeChoice draft={draft} change={change} />
            {rectangle && (
              <>
                {text("width", "Width, along the back wall", undefined, imperial ? "11' 2\"" : "3.40 m")}
                {text("depth", "Depth", undefined, imperial ? "9' 6\"" : "2.90 m")}
              </>
            )}
            {text("height", "Ceiling height")}
            {choice("furnishing", "What is in the room", FURNISHINGS)}
          </Group>
          {!rectangle && <WalkRound draft={draft} problems={problems} change={change} />}
          <Overhead draft={draft} problems={problems} change={change} walls={walls} />
          <Openings draft={draft} problems={problems} change={change} walls={walls} fromCorner={fromCorner} />
          <FurnitureList draft={draft} problems={problems} change={change} />
          <Group
            title="Mains"
            note={`Empty = assumed: ${imperial ? "120 V, 60 Hz, 15 A" : "230 V, 50 Hz, 16 A"}.`}
          >
            {text("volts", "Volts", undefined, imperial ? "120" : "230")}
            {text("hertz", "Hertz", undefined, imperial ? "60" : "50")}
            {text("breaker", "Breaker, A", undefined, imperial ? "15" : "16")}
          </Group>
        </>
      );
    case 1:
      return (
        <>
          <Group>
            {text("stature", "Stature", "Standing, without shoes.", imperial ? "5' 8\"" : "1.72 m")}
            {choice("posture", "On camera you are", [
              ["seated", "seated"],
              ["standing", "standing"],
            ])}
            {draft.texts.posture === "seated" &&
              text("seatHeight", "Seat height, sat on", "Empty = 0.45 m assumed.")}
            {text(
              "eyeHeight",
              "Eye height, measured",
              "Best measured: floor to eyes, as you will sit. Empty = from stature.",
            )}
          </Group>
          <Group>
            {choice("seatAt", "You sit at", [
              ["", "nothing"],
              ...draft.furniture
                .filter((f) => f.kind === "desk" || f.kind === "table")
                .map((f) => [f.id, f.id] as const),
            ])}
            {text("lean", "You lean forward by", `Empty = ${formatGap(0.05, units)} assumed.`)}
            {tick("glasses", "You wear glasses")}
          </Group>
        </>
      );
    case 2:
      return (
        <>
          <fieldset className="mb-6">
            <legend className="sr-only">Purpose</legend>
            <div className="grid gap-3 sm:grid-cols-3">
              {PURPOSES.map(([id, label, help]) => (
                <label
                  key={id}
                  className={`sheet flex cursor-pointer gap-3 p-4 ${draft.texts.purpose === id ? "border-ink border-2" : ""}`}
                >
                  <input
                    type="radio"
                    name="purpose"
                    className="accent-ember mt-1 h-4 w-4"
                    checked={draft.texts.purpose === id}
                    onChange={() => change({ texts: { purpose: id } })}
                  />
                  <span>
                    <span className="block font-semibold">{label}</span>
                    <span className="text-faint text-sm">{help}</span>
                  </span>
                </label>
              ))}
            </div>
          </fieldset>
          <SchoolChoices draft={draft} change={change} />
        </>
      );
    case 3:
      return (
        <>
          <Group title="Camera and lens">
            {choice("format", "Sensor", [
              ...FORMATS.map(([id, label]) => [id, label] as const),
              ...(draft.texts.format === "kept" ? [["kept", "as in the file"] as const] : []),
            ])}
            {text("focalMin", "Shortest focal length, mm", "The real one, as printed on the lens.")}
            {text("focalMax", "Longest focal length, mm")}
            {text("fMin", "Widest f-number at the short end")}
            {text("fMax", "Widest f-number at the long end")}
            {text("nearest", "Nearest focus, from the sensor")}
            {text("isoMax", "Highest ISO")}
            {tick("tracking", "Follows your face by itself")}
          </Group>
          <Group
            title="Key light"
            note={`Lux ${near} from the emitting face, on axis, modifier on, full power.`}
          >
            {choice("key", "Kind", [
              ["octagon", "octagonal softbox"],
              ["rectangle", "panel or rectangular softbox"],
              ["disc", "round"],
              ["ring", "ring"],
              ["bulb", "bulb"],
              ["tube", "tube"],
              ["none", "none"],
            ])}
            {draft.texts.key !== "none" && (
              <>
                {text("keyWidth", draft.texts.key === "octagon" ? "Width, across corners" : "Width")}
                {["rectangle", "ring", "tube"].includes(draft.texts.key ?? "") &&
                  text("keyHeight", draft.texts.key === "ring" ? "Inner diameter" : "Height")}
                {text("keyLux", `Lux at ${near}`)}
                {text("keyWatts", "Watts", "Empty = from its light, at 80 lm/W.")}
              </>
            )}
          </Group>
          <Group title="Fill and back light">
            {choice("fill", "Fill", [
              ["board", "white board"],
              ["lamp", "small lamp"],
              ["none", "none"],
            ])}
            {draft.texts.fill === "board" && (
              <>
                {text("fillWidth", "Board width")}
                {text("fillHeight", "Board height")}
              </>
            )}
            {draft.texts.fill === "lamp" && text("fillLux", `Fill, lux at ${near}`)}
            {tick("back", "A small lamp for the hair")}
            {is("back") && text("backLux", `Back light, lux at ${near}`)}
          </Group>
          <Group title="Microphone and stands">
            {choice("microphone", "Microphone", [
              ["boom", "boomed, directional"],
              ["lavalier", "worn (lavalier)"],
              ["desk", "on the desk"],
              ["headset", "headset"],
              ["on-camera", "on the camera"],
              ["built-in", "the camera’s own"],
              ["none", "none"],
            ])}
            {text("tripods", "Tripods")}
            {text("lightStands", "Light stands")}
            {text("boomStands", "Boom stands for a lamp")}
            {text("microphoneStands", "Microphone stands with boom")}
          </Group>
        </>
      );
    case 4:
      return (
        <>
          {tick("today", "I already have a set-up")}
          {is("today") && (
            <>
              <Group title="Where your eyes are now">
                {text("todayX", "From the left wall")}
                {text("todayY", "From the back wall")}
              </Group>
              <Group title="The lens now" note="Taken to be aimed at you.">
                {text("todayLensX", "From the left wall")}
                {text("todayLensY", "From the back wall")}
                {text("todayLensZ", "Height")}
                {text("todayFocal", "Focal length, mm")}
                {text("todayF", "f-number")}
                {text("todayIso", "ISO")}
              </Group>
              <Group title="The key light now" note="Leave empty if there is none.">
                {text("todayKeyX", "From the left wall")}
                {text("todayKeyY", "From the back wall")}
                {text("todayKeyZ", "Height of its middle")}
              </Group>
              <Group title="The microphone now" note="Leave empty if there is none.">
                {text("todayMicX", "From the left wall")}
                {text("todayMicY", "From the back wall")}
                {text("todayMicZ", "Height")}
              </Group>
            </>
          )}
        </>
      );
    default:
      return (
        <Group>
          {text("budget", "Budget")}
          {text("currency", "Currency label", undefined, "EUR")}
        </Group>
      );
  }
}

function Group({ title, note, children }: { title?: string; note?: string; children: React.ReactNode }) {
  return (
    <section className="mb-7">
      {title && <h3 className="heading mb-1">{title}</h3>}
      {note && <p className="text-faint mb-2 text-sm">{note}</p>}
      <div className="grid items-start gap-x-4 gap-y-4 sm:grid-cols-2 xl:grid-cols-3">{children}</div>
    </section>
  );
}

type Measure = "width" | "depth" | "height" | "foot" | "x" | "y";

function FurnitureList({ draft, problems, change }: Omit<Props, "step">) {
  const set = (index: number, patch: Partial<FurnitureDraft>) =>
    change({ furniture: draft.furniture.map((f, i) => (i === index ? { ...f, ...patch } : f)) });
  const units: UnitSystem = draft.texts.units === "imperial" ? "imperial" : "metric";
  const add = () =>
    change({
      furniture: [
        ...draft.furniture,
        newPiece(
          freeId(
            "piece",
            draft.furniture.map((f) => f.id),
          ),
          units,
        ),
      ],
    });
  return (
    <section className="mb-7">
      <h3 className="heading mb-2">Furniture</h3>
      {draft.furniture.map((piece, index) => {
        const field = (name: Measure, label: string, help?: string) => (
          <TextField
            label={label}
            help={help}
            problem={problems[`furniture.${index}.${name}`]}
            value={piece[name]}
            onChange={(value) => set(index, { [name]: value })}
          />
        );
        return (
          <fieldset key={piece.id} className="sheet mb-3 p-4">
            <legend className="px-1 font-semibold">{piece.id}</legend>
            <div className="grid items-start gap-x-4 gap-y-3 sm:grid-cols-3">
              <Choice
                label="What"
                value={piece.kind}
                options={KINDS}
                onChange={(kind) => set(index, withKind(piece, kind, units))}
              />
              <Choice
                label="Its front faces the"
                value={piece.bearing}
                options={[
                  ["0", "front wall"],
                  ["90", "right wall"],
                  ["180", "back wall"],
                  ["270", "left wall"],
                  ...(["0", "90", "180", "270"].includes(piece.bearing)
                    ? []
                    : [[piece.bearing, `bearing ${piece.bearing}°`] as const]),
                ]}
                onChange={(bearing) => set(index, { bearing })}
              />
              <Choice
                label="It may be moved"
                value={piece.fixed ? "no" : "yes"}
                options={[
                  ["yes", "yes"],
                  ["no", "no, it stays"],
                ]}
                onChange={(v) => set(index, { fixed: v === "no" })}
              />
              {field("width", "Width")}
              {field("depth", "Depth, front to back")}
              {field("height", "Height")}
              {field("foot", "Begins above the floor", "0 where it stands.")}
              {field(
                "x",
                "Middle, from the left wall",
                piece.fixed ? undefined : "Empty = goes where it is needed.",
              )}
              {field("y", "Middle, from the back wall")}
              <button
                type="button"
                className="button self-end"
                onClick={() => change({ furniture: draft.furniture.filter((_, i) => i !== index) })}
              >
                Take {piece.id} out
              </button>
            </div>
          </fieldset>
        );
      })}
      <button type="button" className="button" onClick={add}>
        Add a piece
      </button>
    </section>
  );
}

function SchoolChoices({ draft, change }: Omit<Props, "step" | "problems">) {
  const schools = useQuery({ queryKey: ["schools"], queryFn: api.schools, staleTime: Infinity });
  if (!schools.data) return null;
  const working = schools.data.filter((s) => s.readings.length > 0);
  return (
    <details className="sheet p-4">
      <summary className="font-semibold">Where practitioners disagree: change a default</summary>
      <div className="mt-4 grid items-start gap-4 sm:grid-cols-2">
        {working.map((school) => (
          <Choice
            key={school.id}
            label={school.id.replaceAll("-", " ").replace(/^./, (c) => c.toUpperCase())}
            help={`Default because: ${school.reason}`}
            value={draft.schools[school.id] ?? school.choices[0]?.id ?? ""}
            options={school.choices.map((c) => [c.id, c.label] as const)}
            onChange={(value) => change({ schools: { ...draft.schools, [school.id]: value } })}
          />
        ))}
      </div>
    </details>
  );
}
