// Where the focus was before something opened over the page: there it goes back, also from what a menu's entry opened, which is gone by then.
import { useRef } from "react";

let last: HTMLElement | null = null;

document.addEventListener("focusin", ({ target }) => {
  if (!(target instanceof HTMLElement) || target.closest("[role=dialog], [role=alertdialog]")) return;
  // A menu is named by the button that it belongs to, which a mouse does not give the focus.
  const menu = target.closest("[role=menu]");
  last = menu ? document.getElementById(menu.getAttribute("aria-labelledby") ?? "") : target;
});

/** What a dialog is given, so that it gives the focus back. */
export function useOpener() {
  const opener = useRef<HTMLElement | null>(null);
  return {
    onOpenAutoFocus: () => {
      opener.current = last;
    },
    onCloseAutoFocus: (event: Event) => {
      event.preventDefault();
      opener.current?.focus();
    },
  };
}
