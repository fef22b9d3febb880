// A corner laid step by step on this machine.
import { useParams } from "react-router";

import { ButtonLink } from "../ui/button";
import { Connection } from "../ui/Connection";
import { NotFound, Trouble, Waiting } from "../ui/states";
import { PageTitle, SkipLink } from "../ui/Shell";
import { Steps } from "./Steps";
import { useLaying } from "./useLaying";

export function LayingPage() {
  const id = Number(useParams().id);
  return Number.isInteger(id) ? <Floor corner={id} back={`/corners/${String(id)}/card`} /> : <NotFound />;
}

interface Props {
  corner: number;
  /** Where it was opened. */
  back: string;
  /** On a phone takes are counted too. */
  isPhone?: boolean;
}

/** The page of one corner. */
export function Floor({ corner, back, isPhone = false }: Props) {
  const laying = useLaying(corner);
  const { told } = laying;
  return (
    <div className="min-h-dvh">
      <PageTitle of={told ? `${told.name}, on the floor` : "On the floor"} />
      <SkipLink />
      <header className="border-line bg-paper flex min-h-14 flex-wrap items-center gap-x-3 border-b px-4 py-1.5">
        <ButtonLink size="small" to={back}>
          Back
        </ButtonLink>
        <h1 className="mr-auto line-clamp-1 min-w-0 text-sm font-semibold">{told?.name ?? "On the floor"}</h1>
        {isPhone && (
          <ButtonLink size="small" to={`${back}/${String(corner)}/takes`}>
            Takes
          </ButtonLink>
        )}
        <Connection of={laying} words={["tick", "ticks"]} />
      </header>
      <main id="content" tabIndex={-1} className="outline-none">
        {told ? (
          <Steps told={told} laying={laying} />
        ) : laying.error ? (
          <div className="p-4">
            <Trouble error={laying.error} />
          </div>
        ) : (
          <div className="px-4">
            <Waiting what="Reading the card" />
          </div>
        )}
      </main>
    </div>
  );
}
