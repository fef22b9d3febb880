// What each sum buys: the score of the best corner for it, and the sum from which on more would be neither seen nor heard.
import type { Advice } from "../api/buying";
import { sum } from "./sums";

const WIDTH = 260;
const HEIGHT = 130;
const LEFT = 26;
const BOTTOM = 22;

/** Sums are drawn so that small ones have room. */
const across = (value: number, most: number) =>
  LEFT + (WIDTH - LEFT - 8) * (Math.log1p(value / 20) / Math.log1p(Math.max(most, 20) / 20));

export function Curve({ advice, currency }: { advice: Advice; currency: string }) {
  const { curve, spent, flat_from: flat } = advice;
  if (curve.length < 2) return null;
  const most = Math.max(flat * 1.6, advice.budget, 50);
  const up = (score: number) => 8 + (HEIGHT - BOTTOM - 8) * (1 - score);
  const steps = curve.map((point, at) => {
    const next = curve[at + 1]?.spent ?? most;
    return `${at === 0 ? "M" : "L"}${across(point.spent, most)},${up(point.score)}H${across(next, most)}`;
  });
  const told = curve.map((one) => `${sum(one.spent, currency)}: ${(100 * one.score).toFixed(0)} of 100`);
  return (
    <figure aria-label="What each sum buys" className="max-w-md text-xs">
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="w-full" role="img" aria-label={told.join("; ")}>
        {[0, 0.5, 1].map((score) => (
          <g key={score}>
            <line x1={LEFT} x2={WIDTH} y1={up(score)} y2={up(score)} className="stroke-line" />
            <text x={LEFT - 4} y={up(score) + 3} textAnchor="end" className="fill-faint" fontSize="9">
              {100 * score}
            </text>
          </g>
        ))}
        <path d={steps.join("")} fill="none" className="stroke-ink" strokeWidth="1.6" />
        {spent > 0 && (
          <circle
            cx={across(spent, most)}
            cy={up(advice.score)}
            r="4"
            className="fill-ember stroke-paper"
            strokeWidth="1.5"
          />
        )}
        {[0, flat].map((value) => (
          <text
            key={value}
            x={across(value, most)}
            y={HEIGHT - 6}
            textAnchor={value === 0 ? "start" : "middle"}
            className="fill-faint"
            fontSize="9"
          >
            {sum(value, value === 0 ? "" : currency)}
          </text>
        ))}
      </svg>
      <figcaption>
        Points for each sum. Beyond {sum(flat, currency)} you would hardly see or hear it.
      </figcaption>
    </figure>
  );
}
