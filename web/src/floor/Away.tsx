// Where stands are put away, and which plug goes into which socket.
import type { Schemas } from "../api/client";
import { Drawing } from "../drawing/Drawing";
import { ButtonLink } from "../ui/button";
import { Section, SHEET } from "../ui/Section";
import { fixed, formatLength, type UnitSystem } from "../units/length";
import { amperes } from "./run";

interface Props {
  corner: number;
  told: Schemas["PutUp"];
  units: UnitSystem;
}

export function Away({ corner, told: { ready, power, away }, units }: Props) {
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
                  <span>
                    {stand.stays
                      ? "Stays where it stands: no wall has a free place for it."
                      : `${stand.rolls ? "Rolled aside" : "Folded"}, ${formatLength(stand.at_m[0] ?? 0, units)} from the left wall, ${formatLength(stand.at_m[1] ?? 0, units)} from the back wall; ${formatLength(stand.way_m, units, 1)} to its mark.`}
                  </span>
                </li>
              ))}
            </ul>
          </Section>
        )}
        {power.plugs.length > 0 && <Plugs power={power} corner={corner} units={units} />}
      </div>
    </div>
  );
}

function Plugs({ power, corner, units }: { power: Schemas["Power"]; corner: number; units: UnitSystem }) {
  const knows = power.plugs.some((plug) => plug.socket != null);
  return (
    <Section title="Mains">
      <ul className={`${SHEET} divide-line divide-y text-sm`} aria-label="Plugs">
        {power.plugs.map((plug) => (
          <li key={plug.id} className="px-3 py-1.5">
            {plug.what}, {plug.is_assumed ? "about " : ""}
            {fixed(plug.power_w, 0)} W
            {plug.socket != null && plug.cable_m != null && (
              <>
                {" "}
                into socket <strong>{plug.socket}</strong>, at least {formatLength(plug.cable_m, units, 1)} of
                cable
              </>
            )}
            {plug.crosses.length > 0 && <>; tape it down where it crosses {plug.crosses.join(" and ")}</>}
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
        {power.circuits.map((circuit) => (
          <li key={circuit.name}>
            {circuit.name ? `Circuit ${circuit.name}` : "All together"}: {fixed(circuit.load_w, 0)} W,{" "}
            {amperes(circuit.load_a)} of {fixed(circuit.breaker_a, 0)} A, and what else hangs on that breaker.
          </li>
        ))}
        {power.strips.map((strip) => (
          <li key={strip.socket}>
            A strip with {strip.plugs} places at socket {strip.socket}.
          </li>
        ))}
        <li>{power.one_switch.words}</li>
        {power.batteries.map((words) => (
          <li key={words}>{words}</li>
        ))}
        <li className="border-ember border-l-4 pl-2">{power.caution}</li>
      </ul>
    </Section>
  );
}
