// What the shades of a field stand for, laid over each other as they are on the drawings.
import { signed } from "../units/length";
import type { Area, FieldName } from "./field";

const WORDS: Record<FieldName, string> = {
  light: "Light against your face, stops",
  sound: "Your voice over the room, dB",
  shot: "Blur against what still looks sharp, times",
};
const STEP = 26;
const HEIGHT = 10;

export function FieldScale({ of, areas }: { of: FieldName; areas: Area[] }) {
  const width = areas.length * STEP;
  const words = (level: number) => (of === "shot" ? String(level) : signed(level, level % 1 === 0 ? 0 : 1));
  // Only as many numbers as have room.
  const told = areas.length > 8 ? (index: number) => areas[index]?.level ?? 0 : () => 0;
  return (
    <figure className="text-faint flex w-full flex-wrap items-start gap-x-3 pt-1 text-xs">
      <figcaption>{WORDS[of]}</figcaption>
      <svg
        style={{ width, height: HEIGHT + 13 }}
        viewBox={`0 0 ${width} ${HEIGHT + 13}`}
        className="drawing ml-auto"
        aria-hidden="true"
      >
        {areas.map(({ level }, index) => (
          <g key={level}>
            <rect
              x={index * STEP}
              width={width - index * STEP}
              height={HEIGHT}
              className={`area area-${of}`}
            />
            {told(index) % 1 === 0 && (
              <text x={index * STEP} y={HEIGHT + 11} fontSize={11} className="scale-number">
                {words(level)}
              </text>
            )}
          </g>
        ))}
      </svg>
    </figure>
  );
}
