// A hand that holds something: followed until it lets go, or until Escape breaks it off. The window listens, not the
// thing: what is held may lag behind the pointer.

interface Hold {
  /** The pointer is somewhere; `live` while it is still held. Tells whether the thing has moved at all. */
  drag: (at: PointerEvent, live: boolean) => boolean;
  /** It was broken off after it had moved. */
  onBreak: () => void;
  /** It is over. */
  onEnd?: (moved: boolean) => void;
}

export function hold({ drag, onBreak, onEnd }: Hold): void {
  let moved = false;
  const end = () => {
    window.removeEventListener("pointermove", onMove);
    window.removeEventListener("pointerup", onUp);
    window.removeEventListener("pointercancel", breakOff);
    window.removeEventListener("keydown", onKey, true);
    onEnd?.(moved);
  };
  const onMove = (at: PointerEvent) => {
    moved = drag(at, true);
  };
  const onUp = (at: PointerEvent) => {
    if (moved) drag(at, false);
    end();
  };
  const breakOff = () => {
    if (moved) onBreak();
    end();
  };
  const onKey = (pressed: KeyboardEvent) => {
    if (pressed.key !== "Escape") return;
    pressed.stopPropagation();
    breakOff();
  };
  window.addEventListener("pointermove", onMove);
  window.addEventListener("pointerup", onUp);
  window.addEventListener("pointercancel", breakOff);
  window.addEventListener("keydown", onKey, true);
}
