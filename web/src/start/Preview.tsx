// What is being decided, while it is being answered: the room to scale, and as soon as room and person are known the layout that
// would come of it.
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";

import { api, type Brief } from "../api/client";
import { Drawing } from "../drawing/Drawing";
import { RoomSketch } from "../drawing/RoomSketch";
import { Standing } from "../ui/Standing";
import { Trouble } from "../ui/states";

interface Props {
  /** Whatever can be read so far. */
  brief: Brief | null;
  /** All that is needed can be read. */
  whole: boolean;
  narrow: boolean;
}

/** So long nobody has typed, ms. */
const STILL_MS = 600;

function useStill<T>(value: T): T {
  const [still, setStill] = useState(value);
  useEffect(() => {
    const timer = window.setTimeout(() => setStill(value), STILL_MS);
    return () => window.clearTimeout(timer);
  }, [value]);
  return still;
}

export function Preview({ brief, whole, narrow }: Props) {
  const text = useStill(whole && brief ? JSON.stringify(brief) : "");
  const looked = useQuery({
    queryKey: ["preview", text],
    queryFn: async ({ signal }) => {
      const found = await api.propose("Preview", JSON.parse(text) as Brief, signal);
      const best = found.proposals[0];
      if (!best) return { judged: null, obstacle: found.obstacles[0]?.sentence ?? "Nothing fits yet." };
      const words = { sheet_width_px: 400, sheet_height_px: 850, frame_text_scale: 1.6, fixes: false };
      return { judged: await api.assess(best.plan, words), obstacle: null };
    },
    enabled: text !== "",
    staleTime: Infinity,
    retry: false,
    placeholderData: keepPreviousData,
  });
  if (text === "" || !looked.data)
    return (
      <>
        <p className="mb-2 text-sm font-semibold max-lg:hidden">So far, from above, to scale</p>
        <RoomSketch brief={brief} textScale={narrow ? 1.7 : 1} />
        {looked.isError && <Trouble error={looked.error} onRetry={() => void looked.refetch()} />}
        {text !== "" && !looked.isError && (
          <p className="text-faint mt-2 text-sm" role="status">
            Laying it out …
          </p>
        )}
      </>
    );
  const { judged, obstacle } = looked.data;
  if (!judged)
    return (
      <>
        <RoomSketch brief={brief} textScale={narrow ? 1.7 : 1} />
        <p className="mt-2 text-sm">
          <span className="font-semibold">Nothing fits yet.</span> {obstacle}
        </p>
      </>
    );
  return (
    <>
      <p className="mb-2 text-sm font-semibold max-lg:hidden">The layout so far</p>
      <div className={looked.isPlaceholderData ? "opacity-60" : ""}>
        <Drawing
          view={judged.drawing.frame}
          title="The picture so far"
          className="frame-drawing show-thirds mx-auto rounded max-lg:hidden"
          tallest="32vh"
        />
        <Drawing view={judged.drawing.plan} title="The plan so far" className="mx-auto mt-2" tallest="42vh" />
      </div>
      <p className="mt-2 max-lg:hidden" role="status">
        <Standing
          ready={judged.assessment.verdict.ready}
          words={judged.assessment.verdict.ready ? "Ready with these answers" : "Something stands in the way"}
        />
      </p>
    </>
  );
}
