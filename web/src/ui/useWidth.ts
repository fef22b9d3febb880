// The width that a part of the page has, as it changes; also of a part that comes later.
import { useCallback, useState } from "react";

export function useWidth(first: number): [React.RefCallback<HTMLElement>, number] {
  const [width, setWidth] = useState(first);
  const ref = useCallback((part: HTMLElement | null) => {
    if (!part) return;
    const observer = new ResizeObserver(([entry]) => {
      const now = entry?.contentRect.width ?? 0;
      if (now > 0) setWidth(Math.floor(now));
    });
    observer.observe(part);
    return () => observer.disconnect();
  }, []);
  return [ref, width];
}
