// The stop watch beside the actions that put a corner up: begun when everything is put away, ended by the last tick.
import { clock, spent } from "../units/time";
import { Button } from "../ui/button";
import { useNow } from "../ui/useNow";
import { BEGUN, runOf } from "./run";
import type { Step } from "./ticks";
import type { Laying } from "./useLaying";

export function StopWatch({ steps, laying }: { steps: Step[]; laying: Laying }) {
  const run = runOf(steps, laying.ticks);
  const isOn = run !== null && !run.isWhole;
  const now_ms = useNow(isOn, laying.now_ms);
  const begin = () => {
    for (const step of steps) if (laying.ticks.get(step.id)?.done) laying.tick(step.id, false);
    laying.tick(BEGUN, true);
  };
  return (
    <div className="border-line bg-paper flex flex-wrap items-center gap-x-4 gap-y-2 rounded-lg border px-3 py-2">
      {run === null ? (
        <p className="mr-auto">
          Is everything put away? Start the watch, and tick each thing once it is done.
        </p>
      ) : (
        <p className="mr-auto" role="timer">
          <span className="text-5xl leading-none font-bold">
            {clock(((isOn ? now_ms : run.last_ms) - run.begun_ms) / 1000)}
          </span>{" "}
          {run.isWhole && `Put up in ${spent((run.last_ms - run.begun_ms) / 1000)}. It is kept for the card.`}
        </p>
      )}
      {isOn && (
        <Button className="min-h-12" onClick={() => laying.tick(BEGUN, false)}>
          Stop
        </Button>
      )}
      <Button look={run === null ? "act" : "usual"} className="min-h-12" onClick={begin}>
        {run === null ? "Start" : "Start again"}
      </Button>
    </div>
  );
}
