// Labelled fields: words above, help below, the problem in words beside its mark. They take what a form library registers.
import { useId, useState } from "react";

import { FIELD, FieldNote } from "./note";
import { useMeaning } from "./terms";

interface Common {
  label: string;
  help?: string | undefined;
  problem?: string | undefined;
}

type Input = Omit<React.ComponentProps<"input">, "onChange" | "id" | "className">;

export function TextField({
  label,
  help,
  problem,
  onText,
  onChange,
  onFocus,
  onBlur,
  ...rest
}: Common &
  Input & { onText?: (text: string) => void; onChange?: React.ChangeEventHandler<HTMLInputElement> }) {
  const id = useId();
  const [focused, setFocused] = useState(false);
  // "Focal length, mm" is the word "Focal length".
  const meaning = useMeaning(label.split(",")[0]);
  const words = help ?? (focused ? meaning : undefined);
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-sm font-semibold">
        {label}
      </label>
      <input
        {...rest}
        id={id}
        className={FIELD}
        autoComplete="off"
        aria-invalid={problem ? true : undefined}
        aria-describedby={problem || words ? `${id}-note` : undefined}
        onFocus={(event) => {
          setFocused(true);
          onFocus?.(event);
        }}
        onBlur={(event) => {
          setFocused(false);
          onBlur?.(event);
        }}
        onChange={(event) => {
          onText?.(event.target.value);
          onChange?.(event);
        }}
      />
      <FieldNote id={`${id}-note`} help={words} problem={problem} />
    </div>
  );
}

type Options = readonly (readonly [string, string])[];

export function Choice({
  label,
  help,
  problem,
  options,
  onPick,
  onChange,
  ...rest
}: Common &
  Omit<React.ComponentProps<"select">, "id" | "className"> & {
    options: Options;
    onPick?: (key: string) => void;
  }) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-sm font-semibold">
        {label}
      </label>
      <select
        {...rest}
        id={id}
        className={FIELD}
        aria-invalid={problem ? true : undefined}
        aria-describedby={problem || help ? `${id}-note` : undefined}
        onChange={(event) => {
          onPick?.(event.target.value);
          onChange?.(event);
        }}
      >
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
      <FieldNote id={`${id}-note`} help={help} problem={problem} />
    </div>
  );
}

export function Tick({
  label,
  onTick,
  onChange,
  ...rest
}: { label: string; onTick?: (on: boolean) => void } & Omit<
  React.ComponentProps<"input">,
  "type" | "className"
>) {
  return (
    <label className="flex min-h-10 items-center gap-2.5">
      <input
        {...rest}
        type="checkbox"
        className="accent-ember h-6 w-6 shrink-0"
        onChange={(event) => {
          onTick?.(event.target.checked);
          onChange?.(event);
        }}
      />
      <span>{label}</span>
    </label>
  );
}
