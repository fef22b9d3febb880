// How somebody works a page: with a mouse, with keys alone, with fingers.
import type { Locator, Page } from "@playwright/test";

export interface Hand {
  press: (what: Locator) => Promise<void>;
  fill: (what: Locator, text: string) => Promise<void>;
  /** Picks of a list, by the words that it shows. */
  pick: (what: Locator, words: string) => Promise<void>;
  /** Gives a file by pressing what asks for one. */
  give: (what: Locator, file: { name: string; mimeType: string; buffer: Buffer }) => Promise<void>;
}

/** What is hit: radio buttons are dressed as their labels. */
async function hit(what: Locator): Promise<Locator> {
  const label = what.locator("xpath=ancestor::label[1]");
  return (await label.count()) > 0 ? label : what;
}

/** A mouse and a finger pick alike: the browser shows a list of its own. */
const pick: Hand["pick"] = async (what, words) => {
  await what.selectOption({ label: words });
};

/**
 * The browser hands over a file dialog only while somebody listens, and takes a moment to begin: a press right after
 * would be missed. So it is listened for from the first.
 */
const hears = (page: Page, hand: Hand): Hand => {
  page.on("filechooser", () => undefined);
  return hand;
};

/** Gives a file to what asks for one once it is pressed. */
async function giveTo(
  page: Page,
  press: () => Promise<void>,
  file: Parameters<Hand["give"]>[1],
): Promise<void> {
  const [chooser] = await Promise.all([page.waitForEvent("filechooser"), press()]);
  await chooser.setFiles([file]);
}

export const byMouse = (page: Page): Hand =>
  hears(page, {
    press: async (what) => (await hit(what)).click(),
    fill: (what, text) => what.fill(text),
    pick,
    give: (what, file) => giveTo(page, () => what.click(), file),
  });

export const byFinger = (page: Page): Hand =>
  hears(page, {
    press: async (what) => (await hit(what)).tap(),
    fill: async (what, text) => {
      await what.tap();
      await what.fill(text);
    },
    pick,
    give: (what, file) => giveTo(page, () => what.tap(), file),
  });

const MOST_PRESSES = 250;

/**
 * Goes on with Tab, or back where it lies before, and with arrows where only one of several is gone to by Tab, until this has the
 * focus.
 */
async function goTo(page: Page, what: Locator): Promise<void> {
  await what.waitFor({ state: "attached" });
  const key = () =>
    what.evaluate((wanted) => {
      const focused = document.activeElement;
      if (focused === wanted) return null;
      const together =
        "[role=tablist], [role=radiogroup], [role=menu], [role=group]:has(> [role=radio]), fieldset";
      const isOne = /^(radio|tab|menuitem)$/.test(
        wanted.getAttribute("role") ?? wanted.getAttribute("type") ?? "",
      );
      const group = isOne ? wanted.closest(together) : null;
      if (group && focused && group !== focused && group.contains(focused)) return "ArrowRight";
      const isBefore =
        focused &&
        focused !== document.body &&
        wanted.compareDocumentPosition(focused) & Node.DOCUMENT_POSITION_FOLLOWING;
      return isBefore ? "Shift+Tab" : "Tab";
    });
  for (let presses = 0; presses < MOST_PRESSES; presses += 1) {
    const next = await key();
    if (!next) return;
    await page.keyboard.press(next);
  }
  throw new Error(`${String(what)} is not reached by keys`);
}

export const byKeys = (page: Page): Hand =>
  hears(page, {
    press: async (what) => {
      await goTo(page, what);
      // Arrows pick a radio button as they reach it, except where there is but one.
      const isPicked = await what.evaluate((e) => e instanceof HTMLInputElement && e.checked);
      const isLink = await what.evaluate((e) => e instanceof HTMLAnchorElement);
      if (!isPicked) await page.keyboard.press(isLink ? "Enter" : "Space");
    },
    fill: async (what, text) => {
      await goTo(page, what);
      await page.keyboard.press("Control+a");
      await page.keyboard.type(text);
    },
    pick: async (what, words) => {
      await goTo(page, what);
      await page.keyboard.type(words);
    },
    give: async (what, file) => {
      await goTo(page, what);
      await giveTo(page, () => page.keyboard.press("Space"), file);
    },
  });
