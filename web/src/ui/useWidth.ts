// The width that a part of the page has, as it changes.
import { useEffect, useRef, useState } from "react";

export function useWidth(first: number): [React.RefObject<HTMLDivElement | null>, number] {
  const ref = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(first);
  useEffect(() => {
    if (!ref.current) return;
    const observer = new ResizeObserver(([entry]) => {
      const now = entry?.contentRect.width ?? 0;
      if (now > 0) setWidth(Math.floor(now));
    });
    observer.observe(ref.current);
    return () => observer.disconnect();
  }, []);
  return [ref, width];
}
