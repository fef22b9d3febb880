// No corner yet: what comes of making one.
import { ButtonLink } from "../ui/button";
import { SHEET } from "../ui/Section";

const WAYS = [
  ["Measure", "The room with a tape, yourself, what you own and what you could spend."],
  ["Look", "Where you sit and where camera, lights and microphone go, before a stand is moved."],
  ["Record", "Print the card, tape the marks on the floor, sit down."],
] as const;

export function Empty() {
  return (
    <section className={`${SHEET} mx-auto max-w-3xl p-8`} aria-label="No corner yet">
      <p className="mb-1 text-2xl font-bold">Make the first corner</p>
      <p className="text-faint mb-6">It takes a tape measure and about five minutes.</p>
      <ol className="mb-6 grid gap-4 sm:grid-cols-3">
        {WAYS.map(([title, words], index) => (
          <li key={title}>
            <p className="font-bold">
              <span className="text-ember">{index + 1}</span> {title}
            </p>
            <p className="text-sm">{words}</p>
          </li>
        ))}
      </ol>
      <p className="flex flex-wrap gap-3">
        <ButtonLink look="act" to="/new">
          Start with the room
        </ButtonLink>
        <ButtonLink to="/new?door=today">I have a set-up: check it</ButtonLink>
      </p>
    </section>
  );
}
