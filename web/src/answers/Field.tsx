// A field of the answers: its text, its choice or its tick, with its problem.
import { Choice, TextField, Tick } from "../ui/fields";
import { useAnswers, useProblem, type Path } from "./form";

interface Props {
  path: Path;
  label: string;
  help?: string | undefined;
  placeholder?: string | undefined;
}

export function Text({ path, ...rest }: Props) {
  const { register } = useAnswers();
  return <TextField {...rest} problem={useProblem(path)} {...register(path)} />;
}

export function Pick({
  path,
  ...rest
}: Omit<Props, "placeholder"> & { options: readonly (readonly [string, string])[] }) {
  const { register } = useAnswers();
  return <Choice {...rest} problem={useProblem(path)} {...register(path)} />;
}

export function Check({ path, label }: { path: Path; label: string }) {
  const { register } = useAnswers();
  return <Tick label={label} {...register(path)} />;
}

/** Fields under a title. */
export function Group({
  title,
  note,
  children,
}: {
  title?: string;
  note?: string;
  children: React.ReactNode;
}) {
  return (
    <section className="mb-7">
      {title && <h3 className="mb-1 text-lg font-bold">{title}</h3>}
      {note && <p className="text-faint mb-2 text-sm">{note}</p>}
      <div className="grid items-start gap-x-4 gap-y-4 sm:grid-cols-2 xl:grid-cols-3">{children}</div>
    </section>
  );
}

/** One of several things of a list. */
export function Item({
  name,
  onRemove,
  children,
}: {
  name: string;
  onRemove: React.ReactNode;
  children: React.ReactNode;
}) {
  return (
    <fieldset className="border-line bg-paper mb-3 rounded-lg border p-4">
      <legend className="px-1 font-semibold first-letter:uppercase">{name}</legend>
      <div className="grid items-start gap-x-4 gap-y-3 sm:grid-cols-3">
        {children}
        {onRemove}
      </div>
    </fieldset>
  );
}
