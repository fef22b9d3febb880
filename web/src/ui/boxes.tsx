// Small boxes for exact values: typed and taken on Enter or when left, stepped with the up and down keys. What is
// refused stays in the box with the reason; Escape brings back what was there.
import { useId, useState } from "react";

import {
  editLength,
  fixed,
  formatLength,
  INCH_M,
  parseLength,
  POUND_KG,
  type UnitSystem,
} from "../units/length";
import { useMeaning } from "./terms";

interface Labelled {
  label: string;
  /** Word of the glossary that explains it on focus, where it is not the label. */
  term?: string | undefined;
  /** Least and greatest accepted. */
  within: readonly [number, number];
  disabled?: boolean | undefined;
  className?: string | undefined;
}

interface Shared extends Labelled {
  value: number;
  onCommit: (value: number) => void;
}

interface Optional extends Labelled {
  value: number | null;
  /** What stands there while nothing is given. */
  without: string;
  onCommit: (value: number | null) => void;
}

interface TypedProps extends Labelled {
  value: number | null;
  without?: string | undefined;
  onCommit: (value: number | null) => void;
  unit: string;
  write: (value: number) => string;
  read: (text: string) => number | null;
  words: (value: number) => string;
  step: number;
}

function Typed({
  label,
  term,
  value,
  without,
  onCommit,
  within,
  disabled,
  className,
  unit,
  write,
  read,
  words,
  step,
}: TypedProps) {
  const id = useId();
  const meaning = useMeaning(term ?? label);
  const [typed, setTyped] = useState<string | null>(null);
  const [focused, setFocused] = useState(false);
  const emptied = without !== undefined && typed?.trim() === "";
  const found = typed === null ? value : read(typed);
  const bad =
    typed === null || emptied
      ? null
      : found === null
        ? `“${typed}” is not a value.`
        : found < within[0] || found > within[1]
          ? `Give ${words(within[0])} to ${words(within[1])}.`
          : null;
  const commit = () => {
    if (typed === null || bad !== null) return;
    setTyped(null);
    if (emptied) {
      if (value !== null) onCommit(null);
    } else if (found !== null && (value === null || Math.abs(found - value) > 1e-9)) onCommit(found);
  };
  const stepBy = (by: number) => {
    const next = Math.min(within[1], Math.max(within[0], (found ?? value ?? within[0]) + by));
    setTyped(null);
    onCommit(Number(next.toFixed(4)));
  };
  const note = bad ?? (focused ? meaning : undefined);
  return (
    <div className={`relative ${className ?? ""}`}>
      <label htmlFor={id} className="block text-xs leading-tight font-semibold">
        {label}
        {unit && <span className="text-faint font-normal"> {unit}</span>}
      </label>
      <input
        id={id}
        className="field field-small"
        inputMode="decimal"
        autoComplete="off"
        disabled={disabled}
        placeholder={without}
        value={typed ?? (value === null ? "" : write(value))}
        aria-invalid={bad ? true : undefined}
        aria-describedby={note ? `${id}-note` : undefined}
        onFocus={() => setFocused(true)}
        onChange={(event) => setTyped(event.target.value)}
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
          } else if (event.key === "ArrowUp" || event.key === "ArrowDown") {
            event.preventDefault();
            stepBy((event.key === "ArrowUp" ? 1 : -1) * step * (event.shiftKey ? 10 : 1));
          }
        }}
      />
      {note && (
        <p
          id={`${id}-note`}
          className={bad ? "text-ember mt-1 text-xs font-semibold" : "explanation box-note"}
        >
          {bad && <span aria-hidden="true">▲ </span>}
          {note}
        </p>
      )}
    </div>
  );
}

/** What a box with a value commits is a value. */
const sure = (onCommit: (value: number) => void) => (value: number | null) => {
  if (value !== null) onCommit(value);
};

export function LengthBox({ onCommit, ...rest }: Shared & { units: UnitSystem }) {
  return <FigureBox {...rest} unit="m" onCommit={sure(onCommit)} />;
}

/** A figure of some unit, asked for as people of a unit system measure it; null where it may be left out. */
export function FigureBox({
  unit,
  units,
  digits = 1,
  ...rest
}: Omit<TypedProps, "unit" | "write" | "read" | "words" | "step"> & {
  unit: string;
  units: UnitSystem;
  digits?: number | undefined;
}) {
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
  return <Numbers {...rest} unit={unit} digits={digits} />;
}

function readNumber(text: string): number | null {
  const clean = text.trim().replace(",", ".").replace("−", "-");
  return clean === "" || !Number.isFinite(Number(clean)) ? null : Number(clean);
}

interface Digits {
  unit?: string;
  digits?: number;
  step?: number;
}

export function NumberBox({ onCommit, ...rest }: Shared & Digits) {
  return <Numbers {...rest} onCommit={sure(onCommit)} />;
}

/** A number that may be left out. */
export function OptionalBox(props: Optional & Digits) {
  return <Numbers {...props} />;
}

function Numbers({
  unit = "",
  digits = 1,
  step = 1,
  ...rest
}: Omit<TypedProps, "unit" | "write" | "read" | "words" | "step"> & Digits) {
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
