// Whether what was made on this device is on the server.

interface Props {
  of: { isCut: boolean; wasCut: boolean; waiting: number };
  /** What is made: "tick" and "ticks". */
  words: readonly [string, string];
}

export function Connection({ of: { isCut, wasCut, waiting }, words: [one, many] }: Props) {
  const kept = waiting === 1 ? `One ${one} is` : `${String(waiting)} ${many} are`;
  const words = isCut
    ? waiting > 0
      ? `No connection. ${kept} kept here and sent later.`
      : `No connection. Go on: ${many} are kept here and sent later.`
    : wasCut && waiting === 0
      ? "Connected again, everything is sent."
      : "";
  return (
    <p role="status" className={`text-sm ${isCut ? "text-ember font-semibold" : "text-faint"}`}>
      {words}
    </p>
  );
}
