// @vitest-environment happy-dom
// Boxes as hands meet them: quick steps add up, a refusal keeps what was typed, Escape brings back what was there.
import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import { useState } from "react";
import { afterEach, expect, test } from "vitest";

import { refused, settle } from "../testing/plans";
import { LengthBox, NumberBox } from "./boxes";
import { Slide } from "./Slide";

afterEach(cleanup);

/** Answers that come when the test says so. */
function slow() {
  const waiting: (() => void)[] = [];
  const asked: number[] = [];
  return {
    asked,
    ask: (value: number) =>
      new Promise<void>((done) => {
        asked.push(value);
        waiting.push(done);
      }),
    answer: () =>
      act(() => {
        waiting.splice(0).forEach((done) => done());
        return settle();
      }),
  };
}

function Height({ ask }: { ask: (value: number) => Promise<void> }) {
  const [height, setHeight] = useState(1);
  const commit = async (value: number) => {
    await ask(value);
    setHeight(value);
  };
  return (
    <>
      <LengthBox label="Height" units="metric" within={[0, 3]} value={height} onCommit={commit} />
      <Slide
        name="Height by hand"
        value={height}
        within={[0, 3]}
        step={0.01}
        words={(v) => `${v.toFixed(2)} m`}
        onSlide={commit}
      />
    </>
  );
}

const box = (name: string) => screen.getByRole<HTMLInputElement>("textbox", { name });

test("ten quick presses move ten steps, however slow the answers are", async () => {
  const { ask, asked, answer } = slow();
  render(<Height ask={ask} />);
  for (let press = 0; press < 10; press += 1) fireEvent.keyDown(box("Height"), { key: "ArrowUp" });
  expect(box("Height").value).toBe("1.1 m");
  await answer();
  await answer();
  expect(box("Height").value).toBe("1.1 m");
  // Each was asked for at once: what is done elsewhere meanwhile comes after it.
  expect(asked).toHaveLength(10);
  expect(asked.at(-1)).toBe(1.1);
});

test("a slider takes quick presses the same way, and speaks its value", async () => {
  const { ask, answer } = slow();
  render(<Height ask={ask} />);
  const thumb = screen.getByRole("slider", { name: "Height by hand" });
  for (let press = 0; press < 10; press += 1) fireEvent.keyDown(thumb, { key: "ArrowUp" });
  await answer();
  await answer();
  expect(thumb.getAttribute("aria-valuetext")).toBe("1.10 m");
});

test("what is refused stays in the box with the reason, until it is typed anew", async () => {
  const commit = () => Promise.reject(refused(422, "The ceiling is lower than that."));
  render(<NumberBox label="Height" within={[0, 3]} value={1} onCommit={commit} />);
  fireEvent.change(box("Height"), { target: { value: "2.9" } });
  await act(() => {
    fireEvent.keyDown(box("Height"), { key: "Enter" });
    return settle();
  });
  expect(box("Height").value).toBe("2.9");
  expect(screen.getByText(/The ceiling is lower than that/)).toBeTruthy();
  fireEvent.change(box("Height"), { target: { value: "2.1" } });
  expect(screen.queryByText(/The ceiling is lower/)).toBeNull();
  fireEvent.keyDown(box("Height"), { key: "Escape" });
  expect(box("Height").value).toBe("1");
});

test("what is out of range or no value is said, and not asked for", () => {
  const asked: number[] = [];
  render(<NumberBox label="Gain" within={[0, 60]} value={30} onCommit={(v) => void asked.push(v)} />);
  for (const [typed, words] of [
    ["90", /Give 0.0 to 60.0/],
    ["loud", /“loud” is not a value/],
  ] as const) {
    fireEvent.change(box("Gain"), { target: { value: typed } });
    fireEvent.blur(box("Gain"));
    expect(screen.getByText(words)).toBeTruthy();
  }
  // What is typed counts, also where it is what was shown: that may be about to change.
  for (const typed of ["42,5", "30"]) {
    fireEvent.change(box("Gain"), { target: { value: typed } });
    fireEvent.blur(box("Gain"));
  }
  expect(asked).toEqual([42.5, 30]);
  fireEvent.focus(box("Gain"));
  fireEvent.blur(box("Gain"));
  expect(asked).toHaveLength(2);
});
