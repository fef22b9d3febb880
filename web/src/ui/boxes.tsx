// Small boxes for exact values: typed and taken on Enter or when left, stepped with the up and down keys. What is refused stays
// in the box with the reason; Escape brings back what was there.
import { useId, useState } from "react";

import { Refused } from "../api/client";
import {
  editLength,
  fixed,
  formatLength,
  INCH_M,
  parseLength,
  POUND_KG,
  type UnitSystem,
} from "../units/length";
import { FIELD_SMALL } from "./note";
import { usePending, type Commit } from "./pending";
import { useMeaning } from "./terms";

interface Labelled {
  label: string;
  /** Word of the glossary that explains it on focus, where it is not the label. */
  term?: string | undefined;
  /** Least and greatest accepted. */
  within: readonly [number, number];
  disabled?: boolean | undefined;
}

interface Shared extends Labelled {
  value: number;
  onCommit: Commit<number>;
}

interface Optional extends Labelled {
  value: number | null;
  /** What stands there while nothing is given. */
  without?: string | undefined;
  onCommit: Commit<number | null>;
}

interface TypedProps extends Optional {
  unit: string;
  write: (value: number) => string;
  read: (text: string) => number | null;
  words: (value: number) => string;
  step: number;
}

/** Why a change did not come about. */
const reasonOf = (error: unknown) =>
  error instanceof Refused ? error.details.title : "Not done: the server cannot be reached.";

function problemOf(text: string, found: number | null, { within, words }: TypedProps): string | null {
  if (found === null) return `“${text}” is not a value.`;
  const fits = found >= within[0] && found <= within[1];
  return fits ? null : `Give ${words(within[0])} to ${words(within[1])}.`;
}

function Typed(props: TypedProps) {
  const { label, term, without, within, disabled, unit, write, read, step } = props;
  const id = useId();
  const meaning = useMeaning(term ?? label);
  const [value, push] = usePending(props.value, props.onCommit);
  const [typed, setTyped] = useState<string | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const [focused, setFocused] = useState(false);
  const emptied = without !== undefined && typed?.trim() === "";
  const found = typed === null ? value : read(typed);
  const bad = typed === null || emptied ? null : problemOf(typed, found, props);
  const take = (next: number | null, text: string | null) => {
    setTyped(null);
    setFailed(null);
    push(() => next).catch((error: unknown) => {
      // What was typed is not lost.
      setTyped(text);
      setFailed(reasonOf(error));
    });
  };
  const commit = () => {
    if (typed === null || bad !== null) return;
    // Also where it is what is shown: that may be about to change, and a change that changes nothing is none.
    take(emptied ? null : found, typed);
  };
  const stepBy = (by: number) => {
    const start = typed === null ? null : found;
    setTyped(null);
    setFailed(null);
    const next = (shown: number | null) =>
      Number(Math.min(within[1], Math.max(within[0], (start ?? shown ?? within[0]) + by)).toFixed(4));
    push(next).catch((error: unknown) => setFailed(reasonOf(error)));
  };
  const wrong = bad ?? failed;
  const note = wrong ?? (focused ? meaning : undefined);
  return (
    <div className="relative">
      <label htmlFor={id} className="block text-xs leading-tight font-semibold">
        {label}
        {unit && <span className="text-faint font-normal"> {unit}</span>}
      </label>
      <input
        id={id}
        className={FIELD_SMALL}
        inputMode="decimal"
        autoComplete="off"
        disabled={disabled}
        placeholder={without}
        value={typed ?? (value === null ? "" : write(value))}
        data-untouched={typed === null || undefined}
        aria-invalid={wrong ? true : undefined}
        aria-describedby={note ? `${id}-note` : undefined}
        onFocus={() => setFocused(true)}
        onChange={(event) => {
          setTyped(event.target.value);
          setFailed(null);
        }}
        onBlur={() => {
          setFocused(false);
          commit();
        }}
        onKeyDown={(event) => {
          if (event.key === "Enter") {
            event.preventDefault();
            commit();
          } else if (event.key === "Escape") {
            setTyped(null);
            setFailed(null);
          } else if (event.key === "ArrowUp" || event.key === "ArrowDown") {
            event.preventDefault();
            stepBy((event.key === "ArrowUp" ? 1 : -1) * step * (event.shiftKey ? 10 : 1));
          }
        }}
      />
      {note && (
        <p
          id={`${id}-note`}
          className={
            wrong
              ? "text-ember mt-1 text-xs font-semibold"
              : "bg-ink text-paper absolute top-full left-0 z-40 mt-1 w-60 rounded px-2.5 py-1.5 text-xs"
          }
        >
          {wrong && <span aria-hidden="true">▲ </span>}
          {note}
        </p>
      )}
    </div>
  );
}

/** What a box with a value commits is a value. */
const sure =
  (onCommit: Commit<number>): Commit<number | null> =>
  (value) =>
    value === null ? undefined : onCommit(value);

export function LengthBox({ onCommit, ...rest }: Shared & { units: UnitSystem }) {
  return <FigureBox {...rest} unit="m" onCommit={sure(onCommit)} />;
}

/** A figure of some unit, asked for as people of a unit system measure it; null where it may be left out. */
export function FigureBox({
  unit,
  units,
  digits = 1,
  ...rest
}: Optional & { unit: string; units: UnitSystem; digits?: number | undefined }) {
  if (unit === "m")
    return (
      <Typed
        {...rest}
        unit=""
        write={(v) => editLength(v, units)}
        read={(text) => parseLength(text, units)}
        words={(v) => formatLength(v, units)}
        step={units === "imperial" ? INCH_M / 4 : 0.01}
      />
    );
  if (unit === "kg" && units === "imperial")
    return (
      <Typed
        {...rest}
        unit="lb"
        write={(v) => String(Number((v / POUND_KG).toFixed(digits)))}
        read={(text) => {
          const pounds = readNumber(text);
          return pounds === null ? null : pounds * POUND_KG;
        }}
        words={(v) => fixed(v / POUND_KG, digits)}
        step={POUND_KG}
      />
    );
  return <OptionalBox {...rest} unit={unit} digits={digits} />;
}

function readNumber(text: string): number | null {
  const clean = text.trim().replace(",", ".").replace("−", "-");
  return clean === "" || !Number.isFinite(Number(clean)) ? null : Number(clean);
}

interface Digits {
  unit?: string;
  digits?: number | undefined;
  step?: number;
}

export function NumberBox({ onCommit, ...rest }: Shared & Digits) {
  return <OptionalBox {...rest} onCommit={sure(onCommit)} />;
}

/** A number that may be left out. */
export function OptionalBox({ unit = "", digits = 1, step = 1, ...rest }: Optional & Digits) {
  return (
    <Typed
      {...rest}
      unit={unit}
      write={(v) => String(Number(v.toFixed(digits)))}
      read={readNumber}
      words={(v) => fixed(v, digits)}
      step={step}
    />
  );
}
