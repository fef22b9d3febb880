// The light on the face, now and beside another that it is compared with.
import type { Schemas } from "../api/client";
import { Head } from "./Head";

interface Props {
  face: Schemas["FaceSeen"];
  /** The face as it was when it was put aside to compare. */
  before: Schemas["FaceSeen"] | null;
}

export function Face({ face, before }: Props) {
  return (
    <div className={`bg-surround h-full rounded-lg p-2 text-white ${before ? "grid grid-cols-2 gap-1" : ""}`}>
      {before && (
        <figure className="flex min-w-0 flex-col">
          <figcaption className="text-xs font-bold">Before</figcaption>
          <Head face={before} spoken="Before. " />
        </figure>
      )}
      <figure className="flex h-full min-w-0 flex-col">
        <figcaption className="text-xs">{before ? <b>Now</b> : "Light on your face, stops"}</figcaption>
        <Head face={face} />
      </figure>
    </div>
  );
}
