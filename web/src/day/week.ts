// Good hours in UTC, sorted by local days.
import type { Schemas } from "../api/client";
import { dateAfter } from "./asked";

export interface GoodDay {
  date: string;
  label: string;
  /** As `09:10–11:40`. */
  stretches: string[];
}

/** The stretches of each local day in which a take can be made; what goes past midnight is told on both days. */
export function byDay(all: Schemas["Interval"][], zone: string, from: string, days: number): GoodDay[] {
  const dates = Array.from({ length: days }, (_, index) => dateAfter(from, index));
  const local = (utc: string) => partsOf(utc, zone);
  const wanted = all.filter((one) => one.wanted).map((one) => [local(one.start), local(one.end)] as const);
  return dates.map((date) => ({
    date,
    label: dayWords(date),
    stretches: wanted.flatMap(([start, end]) => {
      const begins = start.date === date ? start.clock : start.date < date ? "00:00" : null;
      const ends = end.date === date ? end.clock : end.date > date ? "24:00" : null;
      return begins === null || ends === null || begins === ends || ends === "00:00"
        ? []
        : [`${begins}–${ends}`];
    }),
  }));
}

function partsOf(utc: string, zone: string): { date: string; clock: string } {
  const format = new Intl.DateTimeFormat("en-CA", {
    timeZone: zone,
    year: "numeric",
    month: "2-digit",
    day: "2-digit",
    hour: "2-digit",
    minute: "2-digit",
    hourCycle: "h23",
  });
  const part = Object.fromEntries(
    format.formatToParts(new Date(utc)).map(({ type, value }) => [type, value]),
  );
  return {
    date: `${part.year ?? ""}-${part.month ?? ""}-${part.day ?? ""}`,
    clock: `${part.hour ?? ""}:${part.minute ?? ""}`,
  };
}

export interface Slot {
  /** In UTC. */
  start: string;
  end: string;
  minutes: number;
}

/** A slot shorter than this is no time for a take, minutes. */
const LEAST_MIN = 30;

const slotOf = ({ start, end }: { start: string; end: string }): Slot => ({
  start,
  end,
  minutes: Math.round((Date.parse(end) - Date.parse(start)) / 60_000),
});

/** The first stretch from now on in which a take can be made, less what has gone by of it; none where there is none. */
export function nextSlot(all: Schemas["Interval"][], now: Date): Slot | null {
  const wanted = all.filter((one) => one.wanted && Date.parse(one.end) > now.getTime());
  const left = wanted.map(({ start, end }) =>
    slotOf({ start: Date.parse(start) < now.getTime() ? now.toISOString() : start, end }),
  );
  return left.find(({ minutes }) => minutes >= LEAST_MIN) ?? null;
}

/** The longest stretch in which a take can be made. */
export function longestSlot(all: Schemas["Interval"][]): Slot | null {
  const slots = all.filter(({ wanted }) => wanted).map(slotOf);
  return slots.reduce<Slot | null>(
    (best, slot) => (best && best.minutes >= slot.minutes ? best : slot),
    null,
  );
}

/** A slot by the local calendar and clock, as `Sat 28 Nov 09:10–11:40`. */
export function slotWords({ start, end }: Slot, zone: string): string {
  const [from, to] = [partsOf(start, zone), partsOf(end, zone)];
  const until = to.date === from.date ? to.clock : `${dayWords(to.date)} ${to.clock}`;
  return `${dayWords(from.date)} ${from.clock}–${until}`;
}

/** A date, as `Sat 28 Nov`. */
const dayWords = (date: string) =>
  new Date(`${date}T12:00:00Z`)
    .toLocaleDateString("en-GB", { weekday: "short", day: "numeric", month: "short", timeZone: "UTC" })
    .replace(",", "");
