// @vitest-environment happy-dom
// Grips as hands meet them: keys take and step, a finger drags, and a second finger changes nothing.
import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";

import type { Handle, View } from "../api/client";
import { SelectionContext } from "../table/selection";
import type { Table } from "../table/table";
import { TableContext } from "../table/useTable";
import { PLAN, settle } from "../testing/plans";
import { Grips } from "./Grips";
import { turnedWords } from "./projection";

afterEach(cleanup);

const LAMP = {
  id: "key",
  name: "Key light",
  letter: "K",
  position_m: [1, 1, 2],
  pointer: "/lights/key",
  movable: true,
  locked: false,
  lifts: true,
} as unknown as Handle;

/** The plan seen from above, a metre to a unit. */
const VIEW = {
  marks: [],
  text_size: 0.1,
  projection: { origin_m: [0, 0, 0], right: [1, 0, 0], down: [0, 1, 0] },
} as unknown as View;

/** The lamp as it is drawn a moment later, under the hand. */
const MOVED = { ...LAMP, position_m: [1.2, 1, 2] };

function show(handle: Handle = LAMP) {
  const table = {
    view: () => ({ plan: PLAN }),
    hold: vi.fn(),
    drag: vi.fn().mockResolvedValue(undefined),
    drop: vi.fn().mockResolvedValue(undefined),
    letGo: vi.fn(),
    nudge: vi.fn().mockResolvedValue(undefined),
  };
  const take = vi.fn();
  const drawn = (as: Handle) => (
    <TableContext value={table as unknown as Table}>
      <SelectionContext value={{ selected: null, select: () => undefined, take }}>
        <Grips
          view={VIEW}
          bounds={[0, 0, 4, 3]}
          boxes={[] as never}
          sheet="plan"
          handles={[as]}
          radius={0.1}
        />
      </SelectionContext>
    </TableContext>
  );
  const { rerender } = render(drawn(handle));
  const svg = screen.getByRole("group");
  svg.getBoundingClientRect = () => ({ width: 400, height: 300, left: 0, top: 0 }) as DOMRect;
  return { table, take, grip: screen.getByRole("button"), redraw: (as: Handle) => rerender(drawn(as)) };
}

test("Space and Enter take a thing; arrows step it, with Shift ten times as far", () => {
  const { table, take, grip } = show();
  for (const key of [" ", "Enter"]) fireEvent.keyDown(grip, { key });
  expect(take).toHaveBeenCalledTimes(2);
  expect(table.nudge).not.toHaveBeenCalled();
  for (let press = 0; press < 10; press += 1) fireEvent.keyDown(grip, { key: "ArrowRight" });
  fireEvent.keyDown(grip, { key: "ArrowRight", shiftKey: true });
  const steps = table.nudge.mock.calls.map((call) => Math.hypot(...(call[2] as number[])));
  expect(steps.map((step) => Number(step.toFixed(3)))).toEqual([...Array<number>(10).fill(0.01), 0.1]);
});

test("what is locked is taken and not moved", () => {
  const { table, take, grip } = show({ ...LAMP, locked: true });
  fireEvent.keyDown(grip, { key: "ArrowRight" });
  expect(take).toHaveBeenCalledWith("key");
  expect(table.nudge).not.toHaveBeenCalled();
  expect(grip.getAttribute("aria-label")).toMatch(/locked/);
});

const finger = (id: number, x: number, y: number) => ({
  pointerId: id,
  pointerType: "touch",
  isPrimary: id === 1,
  buttons: 1,
  clientX: x,
  clientY: y,
});

test("a finger drags; a second one neither moves what is held nor lets it go", () => {
  const { table, grip, redraw } = show();
  act(() => {
    fireEvent.pointerDown(grip, finger(1, 100, 100));
    fireEvent.pointerMove(grip, finger(1, 120, 100));
  });
  // The answer has come, and the lamp is drawn where the hand has it: the next move still counts from where it was taken.
  redraw(MOVED);
  const before = table.drag.mock.calls.length;
  expect(before).toBeGreaterThan(0);
  act(() => {
    fireEvent.pointerDown(grip, finger(2, 300, 250));
    fireEvent.pointerMove(grip, finger(2, 310, 260));
    fireEvent.pointerUp(grip, finger(2, 310, 260));
  });
  expect(table.drag.mock.calls.length).toBe(before);
  expect(table.drop).not.toHaveBeenCalled();
  act(() => {
    fireEvent.pointerMove(grip, finger(1, 140, 100));
    fireEvent.pointerUp(grip, finger(1, 140, 100));
  });
  expect(table.drop).toHaveBeenCalledTimes(1);
  const [{ to_m }] = table.drop.mock.calls[0] as [{ to_m: number[] }];
  expect(to_m).toEqual([expect.closeTo(1.4, 6), expect.closeTo(1, 6), 2]);
});

test("Escape breaks a drag off", async () => {
  const { table, grip } = show();
  act(() => {
    fireEvent.pointerDown(grip, finger(1, 100, 100));
    fireEvent.pointerMove(grip, finger(1, 150, 100));
    fireEvent.keyDown(window, { key: "Escape" });
  });
  await settle();
  expect(table.letGo).toHaveBeenCalledTimes(1);
  expect(table.drop).not.toHaveBeenCalled();
});

test("says where the named walls are on a plan that is turned", () => {
  const turn = (right: number[], down: number[]) => turnedWords({ origin_m: [0, 0, 0], right, down });
  expect(turn([1, 0, 0], [0, -1, 0])).toBeNull();
  expect(turn([-1, 0, 0], [0, 1, 0])).toBe("back wall at the top, left wall on the right");
  expect(turn([0, 1, 0], [1, 0, 0])).toBe("back wall on the left, left wall at the top");
});
