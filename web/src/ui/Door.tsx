// Whether this browser was let in; where not, the page says how.
import { useQuery } from "@tanstack/react-query";

import { api, Refused } from "../api/client";
import { Mark } from "./Shell";

const NOT_LET_IN = 401;

export function Door({ children }: { children: React.ReactNode }) {
  const { error } = useQuery({
    queryKey: ["glossary"],
    queryFn: api.glossary,
    staleTime: Infinity,
    retry: (times, trouble) => times < 1 && !isShut(trouble),
  });
  if (!isShut(error)) return children;
  return (
    <main className="mx-auto grid max-w-xl gap-3 px-5 py-16">
      <title>Not let in · Fogon</title>
      <Mark />
      <h1 className="text-2xl font-bold">This browser was not let in</h1>
      <p>
        Your corners are for you alone, also on a machine that others use. Fogon printed an address when it
        was started: open that one, with the token in it. This browser is remembered from then on.
      </p>
      <p className="text-faint text-sm">
        It looks like <code className="font-mono">{location.origin}/?token=…</code>. Where that terminal is
        closed, start Fogon again.
      </p>
    </main>
  );
}

const isShut = (trouble: unknown) => trouble instanceof Refused && trouble.status === NOT_LET_IN;
