// Whether a part of the page has come into sight: what is not seen is not worked out.
import { useCallback, useState } from "react";

export function useSeen(): [(element: Element | null) => void, boolean] {
  const [seen, setSeen] = useState(false);
  const watch = useCallback((element: Element | null) => {
    if (!element) return;
    const observer = new IntersectionObserver(([entry]) => {
      if (!entry?.isIntersecting) return;
      setSeen(true);
      observer.disconnect();
    });
    observer.observe(element);
  }, []);
  return [watch, seen];
}
