// What is at the place that was pointed at.
import type { Looked } from "../api/viewer";
import { signed } from "./signed";

interface Props {
  looked: Looked;
  onClose: () => void;
}

export function Readout({ looked, onClose }: Props) {
  const [red, green, blue] = looked.shown;
  return (
    <span className="flex items-center gap-1.5" role="status" aria-label="What is there">
      <span
        aria-hidden="true"
        className="inline-block size-4 rounded-full border border-white"
        style={{ background: `rgb(${red} ${green} ${blue})` }}
      />
      <span className="numeral">
        {looked.thing ?? "nothing"}: {signed(looked.over_face_stops)} stops from the face,{" "}
        {signed(looked.stops)} from grey{looked.clips ? ", burnt out" : ""}
      </span>
      <button
        type="button"
        onClick={onClose}
        className="min-h-6 min-w-6 cursor-pointer"
        aria-label="Put away"
      >
        ×
      </button>
    </span>
  );
}
