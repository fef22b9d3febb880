// Where letters and words go so that none covers another.
import type { View } from "../api/client";

type Label = View["labels"][number];
type Box = [number, number, number, number];

interface Badge {
  letter: string;
  ink: string;
  x: number;
  y: number;
}

interface Word {
  text: string;
  x: number;
  y: number;
}

/** Letters step aside from each other; a word takes the first free spot around its mark, or is left out. */
export function placeLabels(labels: Label[], bounds: Box, size: number): { badges: Badge[]; words: Word[] } {
  const [left, top, right, bottom] = bounds;
  const radius = size * 0.72;
  const taken: Box[] = [];
  const clear = (b: Box) =>
    b[0] >= left &&
    b[1] >= top &&
    b[2] <= right &&
    b[3] <= bottom &&
    taken.every((t) => b[2] <= t[0] || b[0] >= t[2] || b[3] <= t[1] || b[1] >= t[3]);
  const badges: Badge[] = [];
  const anchors = labels.map((label) => {
    const [atX = 0, atY = 0] = label.at;
    if (label.letter === "") return { x: atX, y: atY };
    let spot = {
      x: Math.min(Math.max(atX, left + radius), right - radius),
      y: Math.min(Math.max(atY, top + radius), bottom - radius),
    };
    for (let step = 0; step < 24; step += 1) {
      const angle = (step * Math.PI) / 4;
      const far = (Math.floor(step / 8) + (step > 0 ? 1 : 0)) * radius * 1.5;
      const [x, y] = [atX + far * Math.cos(angle), atY + far * Math.sin(angle)];
      if (clear([x - radius, y - radius, x + radius, y + radius])) {
        spot = { x, y };
        break;
      }
    }
    taken.push([spot.x - radius, spot.y - radius, spot.x + radius, spot.y + radius]);
    badges.push({ letter: label.letter, ink: label.ink, ...spot });
    return spot;
  });
  const words: Word[] = [];
  labels.forEach((label, index) => {
    const anchor = anchors[index];
    if (!anchor || label.text === "") return;
    const { x, y } = anchor;
    const width = label.text.length * size * 0.53;
    const gap = label.letter === "" ? 0 : radius + size * 0.25;
    const spots: [number, number][] = [
      [x + gap, y + size * 0.33],
      [x - gap - width, y + size * 0.33],
      [x - width / 2, y - gap - size * 0.3],
      [x - width / 2, y + gap + size * 0.9],
      [x + gap, y - gap],
      [x + gap, y + gap + size * 0.6],
      [x - gap - width, y - gap],
      [x - gap - width, y + gap + size * 0.6],
      [x - width - size * 0.4, y - size * 0.35],
      [x + size * 0.4, y - size * 0.35],
      [x - width / 2, y - gap - size * 1.5],
      [x - width / 2, y + gap + size * 2.1],
    ];
    for (const [tx, ty] of spots) {
      const box: Box = [tx - size * 0.1, ty - size * 0.85, tx + width + size * 0.1, ty + size * 0.25];
      if (clear(box)) {
        taken.push(box);
        words.push({ text: label.text, x: tx, y: ty });
        return;
      }
    }
  });
  return { badges, words };
}
