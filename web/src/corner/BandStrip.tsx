// A reading's band as a strip: good dark, fair light, the value a tick.
import type { Reading } from "../api/client";

export function BandStrip({ reading }: { reading: Reading }) {
  const { band, value } = reading;
  if (!band || value === null || value === undefined) return <span className="my-2 block h-2" />;
  const known = [...band, value].filter((v): v is number => v !== null && v !== undefined);
  const span = Math.max(...known) - Math.min(...known) || 1;
  const [low, high] = [Math.min(...known) - span * 0.15, Math.max(...known) + span * 0.15];
  const at = (v: number) => (100 * (v - low)) / (high - low);
  const [a, b, c, d] = band.map((v) => (v === null || v === undefined ? null : at(v)));
  const [fairFrom, fairTo] = [a ?? b ?? 0, d ?? c ?? 100];
  const [goodFrom, goodTo] = [b ?? fairFrom, c ?? fairTo];
  return (
    <span className="bg-desk relative my-2 block h-2 rounded-sm" aria-hidden="true">
      <span
        className="bg-line absolute inset-y-0"
        style={{ left: `${fairFrom}%`, width: `${fairTo - fairFrom}%` }}
      />
      <span
        className="bg-faint absolute inset-y-0"
        style={{ left: `${goodFrom}%`, width: `${goodTo - goodFrom}%` }}
      />
      <span className="bg-ink absolute -inset-y-1 w-[3px]" style={{ left: `calc(${at(value)}% - 1.5px)` }} />
    </span>
  );
}
