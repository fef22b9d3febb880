// Still pictures are asked for one after the other: they take seconds, the server takes one at a time, and a browser has six
// connections to it, which everything else on the page wants too.

/** A picture that is there. */
export interface Taken {
  blob: Blob;
  /** As the address of an image: nothing has to be given back. */
  url: string;
}

/** A line of its own, in which one works at a time; the page has one. */
export function lineOfWork() {
  let last: Promise<unknown> = Promise.resolve();
  /** Works once all who came before are done or have gone; whoever is gone by then does not work at all. */
  return <T>(signal: AbortSignal, work: () => Promise<T>): Promise<T> => {
    const mine = last.then(() => {
      signal.throwIfAborted();
      return work();
    });
    last = mine.catch(() => undefined);
    return mine;
  };
}

const inTurn = lineOfWork();

/** Asks for a picture when it is its turn. */
export async function taken(signal: AbortSignal, ask: () => Promise<Blob>): Promise<Taken> {
  const blob = await inTurn(signal, ask);
  const url = await new Promise<string>((done, fail) => {
    const reader = new FileReader();
    reader.onload = () => done(reader.result as string);
    reader.onerror = () => fail(new Error("the picture cannot be read"));
    reader.readAsDataURL(blob);
  });
  return { blob, url };
}
