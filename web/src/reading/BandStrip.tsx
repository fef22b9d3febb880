// A reading's band as a strip: good dark, fair light, the value a tick.
import type { Reading } from "../api/client";

export function BandStrip({ reading }: { reading: Reading }) {
  const { band, value } = reading;
  if (!band || value === null || value === undefined) return null;
  const known = [...band, value].filter((v): v is number => v !== null && v !== undefined);
  const span = Math.max(...known) - Math.min(...known) || 1;
  const [low, high] = [Math.min(...known) - span * 0.15, Math.max(...known) + span * 0.15];
  const at = (v: number) => (100 * (v - low)) / (high - low);
  const [a, b, c, d] = band.map((v) => (v === null || v === undefined ? null : at(v)));
  const [fairFrom, fairTo] = [a ?? b ?? 0, d ?? c ?? 100];
  const [goodFrom, goodTo] = [b ?? fairFrom, c ?? fairTo];
  const part = (from: number, to: number) => ({ left: `${from}%`, width: `${to - from}%` });
  return (
    <span className="bg-desk relative my-1 block h-1.5 rounded-full" aria-hidden="true">
      <span className="bg-line absolute inset-y-0 rounded-full" style={part(fairFrom, fairTo)} />
      <span className="bg-faint absolute inset-y-0 rounded-full" style={part(goodFrom, goodTo)} />
      <span
        className="bg-ink absolute -inset-y-1 w-[3px] rounded-full"
        style={{ left: `calc(${at(value)}% - 1.5px)` }}
      />
    </span>
  );
}
