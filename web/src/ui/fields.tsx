// Labelled fields: words above, help below, the problem in words beside its mark.
import { useId, useState } from "react";

import { useMeaning } from "./terms";

interface Common {
  label: string;
  help?: string | undefined;
  problem?: string | undefined;
}

export function TextField({
  label,
  help,
  problem,
  value,
  onChange,
  placeholder,
}: Common & { value: string; onChange: (text: string) => void; placeholder?: string | undefined }) {
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
        id={id}
        className="field"
        value={value}
        placeholder={placeholder}
        autoComplete="off"
        aria-invalid={problem ? true : undefined}
        aria-describedby={problem || words ? `${id}-note` : undefined}
        onFocus={() => setFocused(true)}
        onBlur={() => setFocused(false)}
        onChange={(event) => onChange(event.target.value)}
      />
      <Note id={`${id}-note`} help={words} problem={problem} />
    </div>
  );
}

export function Choice({
  label,
  help,
  problem,
  value,
  onChange,
  options,
}: Common & {
  value: string;
  onChange: (text: string) => void;
  options: readonly (readonly [string, string])[];
}) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-sm font-semibold">
        {label}
      </label>
      <select
        id={id}
        className="field"
        value={value}
        aria-describedby={problem || help ? `${id}-note` : undefined}
        onChange={(event) => onChange(event.target.value)}
      >
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
      <Note id={`${id}-note`} help={help} problem={problem} />
    </div>
  );
}

export function Tick({
  label,
  checked,
  onChange,
}: {
  label: string;
  checked: boolean;
  onChange: (on: boolean) => void;
}) {
  return (
    <label className="flex min-h-10 items-center gap-2.5">
      <input
        type="checkbox"
        className="accent-ember h-5 w-5"
        checked={checked}
        onChange={(event) => onChange(event.target.checked)}
      />
      <span>{label}</span>
    </label>
  );
}

function Note({ id, help, problem }: { id: string; help: string | undefined; problem: string | undefined }) {
  if (problem) {
    return (
      <p id={id} className="text-ember mt-1 text-sm font-semibold">
        <span aria-hidden="true">▲ </span>
        {problem}
      </p>
    );
  }
  return help ? (
    <p id={id} className="text-faint mt-1 text-xs">
      {help}
    </p>
  ) : null;
}
