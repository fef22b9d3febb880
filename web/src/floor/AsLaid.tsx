// Check as laid: what the tape really says, where the marks are by that, what must move, and how the corner stands.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import type { Plan, Schemas } from "../api/client";
import { floorApi } from "../api/floor";
import { LETTERS } from "../table/floor";
import { FigureBox } from "../ui/boxes";
import { FIELD_SMALL } from "../ui/note";
import { Section, SHEET } from "../ui/Section";
import { Trouble, Waiting } from "../ui/states";
import type { UnitSystem } from "../units/length";
import { fromWord, laidBy, othersOf, wordOf, wordsOf, type From, type Mark } from "./got";

/** What may be taped, m. */
const WITHIN = [0, 60] as const;

interface Props {
  plan: Plan;
  units: UnitSystem;
}

export function AsLaid({ plan, units }: Props) {
  const [got, setGot] = useState<Schemas["Got"][]>([]);
  const laid = useQuery({
    queryKey: ["laid", plan, got],
    queryFn: () => floorApi.laid(plan, got),
    placeholderData: (before) => before,
  });
  if (laid.isPending) return <Waiting what="Reading the marks" />;
  if (laid.isError) return <Trouble error={laid.error} onRetry={() => void laid.refetch()} />;
  const { floor, marks, verdict, changes } = laid.data;
  const corners = LETTERS.slice(0, plan.brief.room.floor_m.length).split("");
  const lengthOf = (mark: string, from: From) =>
    got.find((one) => one.mark === mark && wordOf(one.from) === wordOf(from))?.length_m ?? null;
  const take = (mark: string, from: From, length_m: number | null) => {
    const rest = got.filter((one) => one.mark !== mark || wordOf(one.from) !== wordOf(from));
    setGot(length_m === null ? rest : [...rest, { mark, from, length_m }]);
  };
  return (
    <Section title="Check as laid">
      <p className="mb-2 text-sm">
        Tape two distances or more of a mark as it stands. Two say where it is, a third shows a misread tape,
        a fourth names it.
      </p>
      <ul className={`${SHEET} divide-line divide-y`}>
        {floor.map((mark) => (
          <Row
            key={mark.id}
            mark={mark}
            marks={floor}
            corners={corners}
            units={units}
            lengthOf={lengthOf}
            onTake={take}
            words={marks.find((own) => own.id === mark.id)?.words}
            isOff={marks.some((own) => own.id === mark.id && (own.stray_m || own.trust !== "checked"))}
          />
        ))}
      </ul>
      {marks.length > 0 && (
        <div className="mt-3 text-sm" role="status">
          <p className="font-semibold">As it stands: {verdict}</p>
          {changes.length > 0 && (
            <p className="text-faint">
              What changes by it: {changes.map((change) => change.label.toLowerCase()).join(", ")}.
            </p>
          )}
        </div>
      )}
    </Section>
  );
}

interface RowProps {
  mark: Mark;
  marks: Mark[];
  corners: string[];
  units: UnitSystem;
  lengthOf: (mark: string, from: From) => number | null;
  onTake: (mark: string, from: From, length_m: number | null) => void;
  words: string | undefined;
  isOff: boolean;
}

function Row({ mark, marks, corners, units, lengthOf, onTake, words, isOff }: RowProps) {
  const others = othersOf(mark, marks, corners);
  const [more, setMore] = useState<string[]>(() => others.slice(0, 1).map(wordOf));
  const shown = [...laidBy(mark, marks, corners), ...more.map(fromWord)];
  const box = (from: From) => (
    <FigureBox
      label={wordsOf(from, marks)}
      value={lengthOf(mark.id, from)}
      without="not taped"
      unit="m"
      units={units}
      within={WITHIN}
      onCommit={(length_m) => onTake(mark.id, from, length_m)}
    />
  );
  const left = others.filter((from) => !more.includes(wordOf(from)));
  return (
    <li className="grid gap-2 px-3 py-2" aria-label={mark.what}>
      <p className="text-sm font-semibold">
        {mark.letter} · {mark.what}
      </p>
      <div className="flex flex-wrap items-end gap-2">
        {shown.map((from) => (
          <div key={wordOf(from)} className="w-32">
            {box(from)}
          </div>
        ))}
        {left.length > 0 && (
          <label className="w-32 text-xs font-semibold">
            One more
            <select
              className={FIELD_SMALL}
              value=""
              onChange={(event) => setMore([...more, event.target.value])}
            >
              <option value="">choose</option>
              {left.map((from) => (
                <option key={wordOf(from)} value={wordOf(from)}>
                  {wordsOf(from, marks)}
                </option>
              ))}
            </select>
          </label>
        )}
      </div>
      {words && (
        <p role="status" className={`text-sm ${isOff ? "border-ember border-l-4 pl-2" : ""}`}>
          {words}
        </p>
      )}
    </li>
  );
}
