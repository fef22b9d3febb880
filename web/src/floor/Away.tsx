// Where stands are put away, and which plug goes into which socket.
import type { Schemas } from "../api/client";
import { Drawing } from "../drawing/Drawing";
import { ButtonLink } from "../ui/button";
import { Section, SHEET } from "../ui/Section";

interface Props {
  corner: number;
  told: Schemas["PutUp"];
}

export function Away({ corner, told: { ready, power, away } }: Props) {
  return (
    <div className="grid gap-4 md:grid-cols-2">
      <div>
        <Drawing view={away} title="The floor, with stands put away and cables" tallest="30rem" />
        <p className="text-faint mt-1 text-xs">
          Dotted, with a letter in brackets: where a stand is put away.
          {power.plugs.some((plug) => plug.points_m.length > 0) && " Thick lines: cables."}
        </p>
      </div>
      <div className="grid content-start gap-4">
        {ready.parked.length > 0 && (
          <Section title="Stands">
            <ul className={`${SHEET} divide-line divide-y text-sm`} aria-label="Stands put away">
              {ready.parked.map((stand) => (
                <li key={stand.id} className="flex gap-3 px-3 py-1.5">
                  <strong className="w-5 shrink-0">{stand.letter}</strong>
                  <span>{stand.words}</span>
                </li>
              ))}
            </ul>
          </Section>
        )}
        {power.plugs.length > 0 && <Plugs power={power} corner={corner} />}
      </div>
    </div>
  );
}

function Plugs({ power, corner }: { power: Schemas["Power"]; corner: number }) {
  const knows = power.plugs.some((plug) => plug.socket != null);
  return (
    <Section title="Mains">
      <ul className={`${SHEET} divide-line divide-y text-sm`} aria-label="Plugs">
        {power.plugs.map((plug) => (
          <li key={plug.id} className="px-3 py-1.5">
            {plug.words}
          </li>
        ))}
      </ul>
      {!knows && (
        <p className="mt-2 flex flex-wrap items-center gap-2 text-sm">
          Where are the sockets? Then cables have their lengths.
          <ButtonLink size="small" to={`/corners/${String(corner)}/room/by-hand`}>
            Tell where sockets are
          </ButtonLink>
        </p>
      )}
      <ul className="mt-2 grid gap-1 text-sm">
        {[...power.circuits, ...power.strips, power.one_switch].map(({ words }) => (
          <li key={words}>{words}</li>
        ))}
        {power.batteries.map((words) => (
          <li key={words}>{words}</li>
        ))}
        <li className="border-ember border-l-4 pl-2">{power.caution}</li>
      </ul>
    </Section>
  );
}
