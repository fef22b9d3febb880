// One corner: drawn, read, judged, and what to change about it.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, useSyncExternalStore } from "react";
import { Link, useParams } from "react-router";

import {
  api,
  planOf,
  Refused,
  type Brief,
  type Corner,
  type PatchStep,
  type Plan,
  type View,
} from "../api/client";
import { Drawing } from "../drawing/Drawing";
import { Shell } from "../ui/Shell";
import { Standing } from "../ui/Standing";
import { Trouble, Waiting } from "../ui/states";
import { Alternatives, Obstacles, Reason, useProposals } from "./Alternatives";
import { Changes } from "./Changes";
import { Findings } from "./Findings";
import { Placed } from "./Placed";
import { Readings } from "./Readings";

export function CornerPage() {
  const id = Number(useParams().id);
  const corner = useQuery({ queryKey: ["corner", id], queryFn: () => api.corner(id) });
  if (corner.isPending) return <Shell title="Corner">{<Waiting what="Opening the corner" />}</Shell>;
  if (corner.isError)
    return (
      <Shell title="Corner">{<Trouble error={corner.error} onRetry={() => void corner.refetch()} />}</Shell>
    );
  return <OneCorner corner={corner.data} />;
}

/** Saves a plan over the revision it was made from; the answer becomes what is shown. */
function useSaving(corner: Corner) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (file: unknown) => api.save(corner.id, corner.revision, file),
    onSuccess: (kept) => {
      queries.setQueryData(["corner", corner.id], kept);
      void queries.invalidateQueries({ queryKey: ["corners"] });
    },
  });
}

function OneCorner({ corner }: { corner: Corner }) {
  const queries = useQueryClient();
  const saving = useSaving(corner);
  const plan = planOf(corner);
  const textScale = useTextScale();
  const judged = useQuery({
    queryKey: ["assess", corner.id, corner.revision, textScale],
    queryFn: ({ signal }) => api.assess(plan as Plan, textScale, signal),
    enabled: plan !== null,
    staleTime: Infinity,
    placeholderData: (before) => before,
  });
  const found = useProposals(corner.name, corner.brief);
  const apply = useMutation({
    mutationFn: async (patch: PatchStep[]) => saving.mutateAsync(await api.apply(plan as Plan, patch)),
  });
  const units = corner.brief.units ?? "metric";
  const file = (name: string, brief: Brief) =>
    plan ? { ...plan, name, brief } : { format: "fogon.brief", version: 1, name, brief };
  const trouble = apply.error ?? saving.error;
  const conflict = trouble instanceof Refused && trouble.status === 412;
  const { assessment, placed, drawing } = judged.data ?? {};
  return (
    <Shell
      title={corner.name}
      aside={
        <>
          <span className="text-faint text-sm" role="status">
            {saving.isPending ? "keeping …" : `kept, revision ${corner.revision}`}
          </span>
          {assessment && <Standing ready={assessment.verdict.ready} words={assessment.verdict.sentence} />}
          <button
            type="button"
            className="button"
            onClick={() =>
              saving.mutate(
                file(corner.name, {
                  ...corner.brief,
                  units: units === "metric" ? "imperial" : "metric",
                  room: { ...corner.brief.room, mains: pinned(corner.brief) },
                }),
              )
            }
          >
            {units === "metric" ? "Show feet and inches" : "Show metres"}
          </button>
          <Link to={`/corners/${corner.id}/brief`} className="button">
            Change answers
          </Link>
          <a className="button" href={`/api/v1/corners/${corner.id}/file`}>
            Save file
          </a>
          {plan && (
            <Link to={`/corners/${corner.id}/card`} className="button button-act">
              Set-up card
            </Link>
          )}
        </>
      }
    >
      {trouble && (
        <div className="mb-4">
          <Trouble
            error={trouble}
            {...(conflict
              ? {
                  onRetry: () =>
                    void queries.invalidateQueries({ queryKey: ["corner", corner.id] }).then(() => {
                      saving.reset();
                      apply.reset();
                    }),
                }
              : {})}
          />
        </div>
      )}
      {!plan && <Obstacles name={corner.name} brief={corner.brief} id={corner.id} />}
      {judged.isError && <Trouble error={judged.error} onRetry={() => void judged.refetch()} />}
      {plan && judged.isPending && <Waiting what="Working it out" />}
      {plan && assessment && placed && drawing && (
        <>
          <div className="grid items-start gap-5 lg:grid-cols-[minmax(0,11fr)_minmax(0,9fr)]">
            <div className="lg:sticky lg:top-4">
              <SharedScale plan={drawing.plan} side={drawing.side} />
            </div>
            <div className="grid gap-6">
              <figure className="bg-surround rounded p-4">
                <Drawing
                  view={drawing.frame}
                  title="The picture as the lens sees it"
                  className="frame-drawing mx-auto max-h-[60vh]"
                />
                <figcaption className="mt-2 text-sm text-white">
                  {plan.layout.camera.focal_length_mm} mm · f/{plan.layout.camera.f_number} · 1/
                  {Math.round(1 / plan.layout.camera.shutter_s)} s · ISO {plan.layout.camera.iso} ·{" "}
                  {plan.layout.camera.white_balance_k} K
                </figcaption>
              </figure>
              <Findings
                findings={assessment.findings}
                busy={apply.isPending || saving.isPending}
                onApply={(patch) => apply.mutate(patch)}
                units={units}
              />
              <Placed
                placed={placed}
                reason={<Reason found={found.data} layout={plan.layout} score={assessment.score} />}
              />
            </div>
          </div>
          <Readings readings={assessment.readings} units={units} />
          <Changes
            key={corner.revision}
            plan={plan}
            units={units}
            onApply={(patch) => apply.mutate(patch)}
            busy={apply.isPending}
          />
          <Alternatives corner={corner} onTake={(taken) => saving.mutate(taken)} busy={saving.isPending} />
        </>
      )}
      <Rename corner={corner} onName={(name) => saving.mutate(file(name, corner.brief))} />
    </Shell>
  );
}

/** Words on the drawings stay legible on a narrow screen. */
function useTextScale(): number {
  const narrow = useSyncExternalStore(
    (changed) => {
      const query = window.matchMedia("(max-width: 640px)");
      query.addEventListener("change", changed);
      return () => query.removeEventListener("change", changed);
    },
    () => window.matchMedia("(max-width: 640px)").matches,
  );
  return narrow ? 1.7 : 1;
}

/** Changing the units to read in must not change the mains that were assumed. */
function pinned(brief: Brief) {
  const mains = brief.room.mains ?? {};
  const imperial = brief.units === "imperial";
  return {
    voltage_v: mains.voltage_v ?? (imperial ? 120 : 230),
    frequency_hz: mains.frequency_hz ?? (imperial ? 60 : 50),
    breaker_a: mains.breaker_a ?? (imperial ? 15 : 16),
  };
}

/** Plan over side view at one scale: the wider of the two fills the sheet. */
function SharedScale({ plan, side }: { plan: View; side: View }) {
  const width = (view: { bounds: number[] }) => (view.bounds[2] ?? 1) - (view.bounds[0] ?? 0);
  const widest = Math.max(width(plan), width(side));
  const share = (view: { bounds: number[] }) => ({ width: `${(100 * width(view)) / widest}%` });
  return (
    <figure className="sheet p-4">
      <p className="mb-1 text-sm font-semibold">Plan, from above</p>
      <Drawing view={plan} title="Plan, from above" style={share(plan)} />
      <p className="mt-3 mb-1 text-sm font-semibold">Side view along the lens axis, same scale</p>
      <Drawing view={side} title="Side view along the lens axis" style={share(side)} />
      <figcaption className="text-faint mt-2 text-xs">
        S seat, C camera, K key, F fill, B back light, M microphone. Shaded: what the lens sees; darker: what
        is sharp. Dotted circles: the feet of stands. Dashed quarter: door swing.
      </figcaption>
    </figure>
  );
}

function Rename({ corner, onName }: { corner: Corner; onName: (name: string) => void }) {
  const [name, setName] = useState(corner.name);
  const clean = name.trim().slice(0, 120);
  return (
    <form
      className="mt-8 flex max-w-xl items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (clean !== "" && clean !== corner.name) onName(clean);
      }}
    >
      <label className="grow text-sm font-semibold">
        Name of this corner
        <input
          className="field mt-1 font-normal"
          value={name}
          maxLength={120}
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <button type="submit" className="button" disabled={clean === "" || clean === corner.name}>
        Rename
      </button>
    </form>
  );
}
