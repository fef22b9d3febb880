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
    <div className={`bg-surround rounded-lg p-2 text-white ${before ? "grid grid-cols-2 gap-1" : ""}`}>
      {before && (
        <figure className="min-w-0">
          <figcaption className="text-xs font-bold">Before</figcaption>
          <Head face={before} spoken="Before. " />
        </figure>
      )}
      <figure className="min-w-0">
        <figcaption className="text-xs">{before ? <b>Now</b> : "Light on your face, stops"}</figcaption>
        <Head face={face} />
      </figure>
    </div>
  );
}
