// Two versions of one corner side by side, before one of them stays.
import type { Plan } from "../api/client";
import { Changed } from "../compare/Changed";
import { Side } from "../compare/Side";
import { Pair } from "../picture/Pair";
import { useJudged } from "../picture/useJudged";
import { Button } from "../ui/button";
import { Show } from "../ui/dialog";

interface Props {
  mine: Plan;
  theirs: Plan;
  onMine: () => void;
  onTheirs: () => void;
}

export function Both(props: Props) {
  return (
    <Show title="Mine and theirs" trigger={<Button size="small">See both</Button>} wide>
      <Versions {...props} />
    </Show>
  );
}

function Versions({ mine, theirs, onMine, onTheirs }: Props) {
  const [left, right] = [useJudged(mine), useJudged(theirs)];
  return (
    <>
      {left.judged && right.judged && (
        <div className="mb-3">
          <Pair
            left={{ plan: mine, view: left.judged.drawing.frame, name: "Mine" }}
            right={{ plan: theirs, view: right.judged.drawing.frame, name: "Theirs" }}
          />
        </div>
      )}
      <div className="grid gap-4 sm:grid-cols-2">
        <Side side={left} name="mine">
          <Button look="act" onClick={onMine}>
            Keep mine
          </Button>
        </Side>
        <Side side={right} name="theirs">
          <Button onClick={onTheirs}>Take theirs</Button>
        </Side>
      </div>
      {left.judged && right.judged && (
        <Changed
          left={left.judged}
          right={right.judged}
          names={["Mine", "Theirs"]}
          units={mine.brief.units ?? "metric"}
        />
      )}
    </>
  );
}
