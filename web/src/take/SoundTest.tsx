// A test recording: measured, told, held against the plan and the last takes; with a second file how the two go together.
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";

import type { Schemas } from "../api/client";
import { MOST_SOUND_BYTES, takeApi } from "../api/take";
import { withMeasured } from "../table/edits";
import { useTable } from "../table/useTable";
import { Button } from "../ui/button";
import { handOut, stemOf } from "../ui/download";
import { Section } from "../ui/Section";
import { Standing } from "../ui/Standing";
import { Trouble, Waiting } from "../ui/states";
import { Drop } from "./Drop";
import { Kept, type Keep } from "./Kept";
import { AgainstLast, ToldList } from "./Told";

const ACCEPT = ".wav,.flac,audio/wav,audio/x-wav,audio/flac";

export function SoundTest({ corner, keep }: { corner: number; keep: Keep }) {
  const table = useTable();
  const [file, setFile] = useState<File | null>(null);
  const [second, setSecond] = useState<File | null>(null);
  const measure = useMutation({
    mutationFn: async (files: { file: File; second: File | null }) => {
      // The plan as it is on the page is what it is held against.
      await table.flush();
      return takeApi.sound(corner, files.file, files.second);
    },
  });
  const told = measure.data;
  const run = (next: { file: File | null; second: File | null }) => {
    setFile(next.file);
    setSecond(next.second);
    if (next.file) measure.mutate({ file: next.file, second: next.second });
  };
  return (
    <Section title="Sound">
      <div className="grid gap-3">
        <Drop
          words="Two sentences, two seconds of silence, a clap at your mouth, two seconds more: a WAV or FLAC file of 10 to 20 seconds."
          button="Pick a recording"
          accept={ACCEPT}
          most_bytes={MOST_SOUND_BYTES}
          file={file}
          onFile={(picked) => run({ file: picked, second })}
        />
        {file && (
          <Drop
            words="Recorded apart from the camera? Give the camera's sound too, as a WAV or FLAC file."
            button="Pick the camera's sound"
            accept={ACCEPT}
            most_bytes={MOST_SOUND_BYTES}
            file={second}
            onFile={(picked) => run({ file, second: picked })}
          />
        )}
        {measure.isPending && <Waiting what="Measuring it" />}
        {measure.error && <Trouble error={measure.error} />}
        {told && file && !measure.isPending && (
          <>
            <div className="flex flex-wrap items-center gap-2">
              <span className="mr-auto">
                <Standing ready={told.ready} words={told.summary} />
              </span>
              <Kept keep={keep} of={{ file: file.name, summary: told.summary, figures: told.figures }} />
            </div>
            {told.measured_rt_mid_s != null && (
              <Room
                seconds={told.measured_rt_mid_s}
                onTake={(seconds) => table.act((plan) => withMeasured(plan, RT, seconds))}
              />
            )}
            <ToldList all={told.told} label="Sound, measured" />
            <Together told={told} corner={corner} file={file} second={second} />
            <AgainstLast against={told.against} />
          </>
        )}
      </div>
    </Section>
  );
}

const RT = "sound.room.rt_mid_s";

/** The clap's reverberation time, offered as the room's. */
function Room({ seconds, onTake }: { seconds: number; onTake: (seconds: number) => void }) {
  const [taken, setTaken] = useState(false);
  if (taken) return <p className="text-sm">The plan reckons with {seconds.toFixed(2)} s from now on.</p>;
  return (
    <p className="flex flex-wrap items-center gap-2 text-sm">
      <span>The clap tells the reverberation time of the room: {seconds.toFixed(2)} s.</span>
      <Button
        size="small"
        onClick={() => {
          onTake(Number(seconds.toFixed(2)));
          setTaken(true);
        }}
      >
        Take it as measured
      </Button>
    </p>
  );
}

interface TogetherProps {
  told: Schemas["SoundTaken"];
  corner: number;
  file: File;
  second: File | null;
}

function Together({ told, corner, file, second }: TogetherProps) {
  const fit = useMutation({
    mutationFn: (other: File) => takeApi.fitted(corner, file, other),
    onSuccess: (wav) => handOut(wav, `${stemOf(file.name.replace(/\.[^.]+$/, ""))}-fitted.wav`),
  });
  if (second === null) return null;
  return (
    <div className="text-sm">
      <p className="font-semibold">Two files</p>
      {told.unmatched && <p>{told.unmatched}</p>}
      {told.sync && (
        <p className="flex flex-wrap items-center gap-2">
          <span>
            {told.sync.sentence} Found {told.sync.sync.by_clap ? "by the clap" : "by what both hear"}; drift{" "}
            {told.sync.sync.drift_ppm.toFixed(0)} ± {told.sync.sync.drift_sigma_ppm.toFixed(0)} parts in a
            million.
          </span>
          <Button size="small" disabled={fit.isPending} onClick={() => fit.mutate(second)}>
            Save the recording fitted to the camera
          </Button>
        </p>
      )}
      {fit.error && <Trouble error={fit.error} />}
    </div>
  );
}
