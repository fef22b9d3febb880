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
    label: new Date(`${date}T12:00:00Z`).toLocaleDateString("en", {
      weekday: "short",
      day: "numeric",
      month: "short",
      timeZone: "UTC",
    }),
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
