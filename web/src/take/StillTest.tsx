// A still taken at the seat: marked by hand, held against the plan.
import { useMutation } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";

import type { Schemas } from "../api/client";
import { MOST_STILL_BYTES, takeApi } from "../api/take";
import { useTable } from "../table/useTable";
import { Button } from "../ui/button";
import { Tick } from "../ui/fields";
import { Section } from "../ui/Section";
import { Trouble, Waiting } from "../ui/states";
import { Drop } from "./Drop";
import { Kept, type Keep } from "./Kept";
import { MarkBoard } from "./MarkBoard";
import { GROUP_WORDS, GROUPS, planned, sentMarks, withGroup, type GroupName, type Placed } from "./marks";
import { AgainstLast, ToldList } from "./Told";

interface Props {
  corner: number;
  planned: Schemas["PlannedMarks"] | undefined;
  keep: Keep;
}

export function StillTest({ corner, planned: of, keep }: Props) {
  const table = useTable();
  const { file, address, show } = useShown();
  const [placed, setPlaced] = useState<Placed>({});
  const measure = useMutation({
    mutationFn: async (still: File) => {
      await table.flush();
      return takeApi.still(corner, still, sentMarks(placed));
    },
  });
  const told = measure.data;
  const groups = (Object.keys(GROUPS) as GroupName[]).filter(
    (group) =>
      (group !== "screen" || of?.keyed === true) && (group !== "other" || placed.edgeTop !== undefined),
  );
  const pick = (picked: File) => {
    measure.reset();
    show(picked);
    setPlaced(withGroup(withGroup(planned(of), "edge", true), "background", true));
  };
  return (
    <Section title="Picture">
      <div className="grid gap-3">
        <Drop
          words="Sit at the seat, look as you will in the take, and take a still out of the recording: PNG or JPEG. It is looked at here and not kept."
          button="Pick a still"
          accept=".png,.jpg,.jpeg,image/png,image/jpeg"
          most_bytes={MOST_STILL_BYTES}
          file={file}
          onFile={pick}
        />
        {address && (
          <>
            <p className="text-sm">
              Drag each ring onto its place. An edge is a door frame or a shelf that stands upright.
            </p>
            <MarkBoard
              address={address}
              placed={placed}
              onPlaced={(name, at) => setPlaced((before) => ({ ...before, [name]: at }))}
            />
            <div className="flex flex-wrap gap-x-5">
              {groups.map((group) => (
                <Tick
                  key={group}
                  label={GROUP_WORDS[group]}
                  checked={placed[GROUPS[group][0]] !== undefined}
                  onTick={(isOn) => setPlaced((before) => withGroup(before, group, isOn))}
                />
              ))}
            </div>
            <div>
              <Button
                look={told ? "usual" : "act"}
                disabled={measure.isPending || !file}
                onClick={() => file && measure.mutate(file)}
              >
                {told ? "Measure again" : "Measure it"}
              </Button>
            </div>
          </>
        )}
        {measure.isPending && <Waiting what="Measuring it" />}
        {measure.error && <Trouble error={measure.error} />}
        {told && file && !measure.isPending && (
          <>
            <div className="flex justify-end">
              <Kept keep={keep} of={{ file: file.name, summary: summary(told), figures: told.figures }} />
            </div>
            <ToldList all={told.told} label="Picture, measured" />
            <AgainstLast against={told.against} />
          </>
        )}
      </div>
    </Section>
  );
}

/** The still in one sentence: what is worst in it. */
function summary({ told }: Schemas["StillTaken"]): string {
  const worst =
    told.find(({ standing }) => standing === "poor") ?? told.find(({ standing }) => standing === "fair");
  return worst ? `${worst.label}: ${worst.sentence}` : "The picture is as planned.";
}

/** The picked file with an address for as long as it is shown. */
function useShown() {
  const [shown, setShown] = useState<{ file: File; address: string } | null>(null);
  const made = useRef<string | null>(null);
  const show = (file: File) => {
    if (made.current !== null) URL.revokeObjectURL(made.current);
    made.current = URL.createObjectURL(file);
    setShown({ file, address: made.current });
  };
  useEffect(
    () => () => {
      if (made.current !== null) URL.revokeObjectURL(made.current);
    },
    [],
  );
  return { file: shown?.file ?? null, address: shown?.address ?? null, show };
}
