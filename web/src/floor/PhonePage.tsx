// What a phone on the home network sees: the code, the corners, one corner to lay.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";

import { Refused } from "../api/client";
import { floorApi } from "../api/floor";
import { Button } from "../ui/button";
import { SHEET } from "../ui/Section";
import { Trouble, Waiting } from "../ui/states";
import { Floor } from "./LayingPage";

const NOT_LET_IN = 401;

export function PhonePage() {
  const id = Number(useParams().id);
  const corners = useQuery({
    queryKey: ["to-lay"],
    queryFn: floorApi.toLay,
    retry: (times, trouble) => times < 1 && !(trouble instanceof Refused),
    // Put out on the computer, it asks for a code again.
    refetchInterval: 15_000,
  });
  if (corners.error instanceof Refused && corners.error.status === NOT_LET_IN) return <Code />;
  // What was once opened stays: the network may be gone.
  if (Number.isInteger(id) && id > 0 && (corners.data ?? corners.error))
    return <Floor corner={id} back="/phone" isPhone />;
  return (
    <main className="mx-auto grid max-w-xl gap-3 px-4 py-6">
      <title>On the floor · Fogon</title>
      <h1 className="text-2xl font-bold">Which corner?</h1>
      {corners.data?.map((corner) => (
        <Link
          key={corner.id}
          to={`/phone/${String(corner.id)}`}
          className={`${SHEET} block px-4 py-3 text-xl font-semibold break-words`}
        >
          {corner.name}
        </Link>
      ))}
      {corners.data?.length === 0 && <p>There is no corner yet. Make one on your computer.</p>}
      {corners.isPending && <Waiting what="Looking for your corners" />}
      {corners.error && <Trouble error={corners.error} onRetry={() => void corners.refetch()} />}
    </main>
  );
}

/** Six digits, as the computer shows them. */
function Code() {
  const queries = useQueryClient();
  const [code, setCode] = useState("");
  const pair = useMutation({
    mutationFn: () => floorApi.pair(code),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["to-lay"] }),
    onSettled: () => setCode(""),
  });
  return (
    <main className="mx-auto grid max-w-sm gap-4 px-4 py-8">
      <title>Code · Fogon</title>
      <h1 className="text-2xl font-bold">Type the code from your computer</h1>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          pair.mutate();
        }}
      >
        <label className="grid gap-1">
          Six digits
          <input
            className="border-faint bg-paper rounded-lg border px-3 py-2 text-center text-5xl font-bold tracking-widest"
            inputMode="numeric"
            autoComplete="one-time-code"
            pattern="[0-9]{6}"
            maxLength={6}
            required
            value={code}
            onChange={(event) => setCode(event.target.value.replace(/\D/g, ""))}
          />
        </label>
        <Button
          look="act"
          type="submit"
          className="min-h-14 text-xl!"
          disabled={code.length < 6 || pair.isPending}
        >
          Let this phone in
        </Button>
      </form>
      {pair.error && <Trouble error={pair.error} />}
      <p className="text-faint">
        It stands on your computer, on the card of a corner, under &ldquo;With your phone&rdquo;.
      </p>
    </main>
  );
}
