// Typed texts as lengths and numbers; what cannot be read is remembered in words, by field.
import { limits } from "../api/limits";
import { formatLength, parseLength, type UnitSystem } from "../units/length";

export type Problems = Record<string, string>;

type Limit = keyof typeof limits;

/** Reads texts and remembers what it could not read. */
export class Reader {
  readonly problems: Problems = {};

  constructor(private readonly texts: Record<string, string>) {}

  private get system(): UnitSystem {
    return this.texts.units === "imperial" ? "imperial" : "metric";
  }

  text(name: string): string {
    return (this.texts[name] ?? "").trim();
  }

  is(name: string): boolean {
    return this.texts[name] === "yes";
  }

  length(name: string, limit: readonly [number, number], typed = this.text(name)): number {
    const words = `${formatLength(limit[0], this.system)} to ${formatLength(limit[1], this.system)}`;
    if (typed === "") return this.refuse(name, `Give a length, ${words}.`);
    const metres = parseLength(typed, this.system);
    if (metres === null) return this.refuse(name, `“${typed}” is no length. Type 3.40 m, 340 cm or 11' 2".`);
    if (metres < limit[0] || metres > limit[1])
      return this.refuse(name, `${typed} is not accepted: give ${words}.`);
    return Number(metres.toFixed(4));
  }

  optionalLength(name: string, limit: readonly [number, number]): number | null {
    return this.text(name) === "" ? null : this.length(name, limit);
  }

  number(name: string, limit: readonly [number, number]): number {
    const typed = this.text(name).replace(",", ".");
    const value = Number(typed);
    if (typed === "" || !Number.isFinite(value))
      return this.refuse(name, `Give a number, ${limit[0]} to ${limit[1]}.`);
    if (value < limit[0] || value > limit[1])
      return this.refuse(name, `${typed} is not accepted: give ${limit[0]} to ${limit[1]}.`);
    return value;
  }

  optionalNumber(name: string, limit: readonly [number, number]): number | null {
    return this.text(name) === "" ? null : this.number(name, limit);
  }

  private refuse(name: string, words: string): number {
    this.problems[name] = words;
    return 0;
  }
}

/** Least and greatest that the server accepts for a field. */
export const within = (name: Limit): readonly [number, number] => limits[name];
/** A side of a room, and a place in it, m. */
export const SIDE = [0.5, 50] as const;
export const PLACE = [0, 50] as const;
