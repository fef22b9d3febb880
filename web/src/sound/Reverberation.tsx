// Reverberation time band by band, against what is good, and what absorbs the sound.
import { max } from "d3-array";
import { scaleBand, scaleLinear } from "d3-scale";

import type { Plan, Schemas } from "../api/client";
import { sentence } from "../table/show";
import { fixed } from "../units/length";
import { capital } from "../units/text";
import { Section } from "../ui/Section";
import { Absorbers } from "./Absorbers";
import { Grid } from "./Grid";
import { OwnTones } from "./OwnTones";
import { hertz } from "./plot";

const [WIDTH, HEIGHT, LEFT, RIGHT, TOP, BOTTOM] = [520, 180, 44, 12, 14, 26];

export default function Reverberation({ seen, plan }: { seen: Schemas["SoundSeen"]; plan: Plan }) {
  const units = plan.brief.units ?? "metric";
  const { good_s: good } = seen;
  return (
    <>
      <Section title="Reverberation time">
        <p className="text-sm">
          {seen.rt_words === "good" ? "Good for a voice" : capital(seen.rt_words)}
          {seen.shape_words ? `; ${seen.shape_words}` : ""}.
          {seen.assumed && " Not every surface is given: furnished as most rooms are."}
        </p>
        <Bands seen={seen} />
        <p className="text-faint text-xs">
          Wide strip: good for a voice at a microphone, {fixed(good[0] ?? 0, 2)} to {fixed(good[1] ?? 0, 2)}{" "}
          s; inner strip: best. For {sentence(seen.volume_m3, "m³", units)} standards give{" "}
          {fixed(seen.standards_s[0] ?? 0, 2)} s (control rooms, BS.1116-3) and{" "}
          {fixed(seen.standards_s[1] ?? 0, 2)} s (speech, DIN 18041
          {seen.volume_m3 < 30 ? `, stated from ${sentence(30, "m³", units)} on` : ""}), both from memory. By
          Sabine instead: {seen.sabine_s.map((s) => fixed(s, 2)).join(", ")} s.
        </p>
        <details>
          <summary className="min-h-6 cursor-pointer text-sm font-semibold">What absorbs the sound</summary>
          <Absorbers seen={seen} units={units} />
        </details>
      </Section>
      <OwnTones sound={seen} />
    </>
  );
}

function Bands({ seen }: { seen: Schemas["SoundSeen"] }) {
  const { rt60_s: times, bands_hz: bands, good_s: good, best_s: best } = seen;
  const high = Math.max(0.6, Math.ceil((max(times) ?? 0) * 5) / 5);
  const y = scaleLinear([0, high], [HEIGHT - BOTTOM, TOP]);
  const x = scaleBand(bands, [LEFT, WIDTH - RIGHT])
    .paddingInner(0.44)
    .paddingOuter(0.22);
  const wide = x.bandwidth();
  const strip = ([from = 0, to = 0]: number[], look: string) => (
    <rect x={LEFT} width={WIDTH - LEFT - RIGHT} y={y(to)} height={y(from) - y(to)} className={look} />
  );
  return (
    <svg
      className="chart block h-auto w-full"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`Reverberation time: ${bands.map((hz, i) => `${String(hz)} hertz ${fixed(times[i] ?? 0, 2)} seconds`).join(", ")}`}
    >
      {strip(good, "rings-good")}
      {strip(best, "rings-best")}
      <Grid
        left={LEFT}
        right={WIDTH - RIGHT}
        lines={y.ticks(4).map((s) => [y(s), s === 0 ? "0 s" : fixed(s, 1)])}
        under={bands.map((hz) => [(x(hz) ?? 0) + wide / 2, `${hertz(hz)} Hz`])}
        foot={HEIGHT - 8}
      />
      {bands.map((hz, i) => {
        const [at, top] = [x(hz) ?? 0, y(times[i] ?? 0)];
        return (
          <g key={hz}>
            <rect x={at} width={wide} y={top} height={y(0) - top} className="rings-bar" />
            <text x={at + wide / 2} y={top - 4} textAnchor="middle" className="plot-name">
              {fixed(times[i] ?? 0, 2)}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
