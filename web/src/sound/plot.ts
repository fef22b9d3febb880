// The frame that pictures of decaying sound share: level downwards from the direct sound.
import { scaleLinear } from "d3-scale";

const [WIDTH, HEIGHT, LEFT, RIGHT, TOP, BOTTOM] = [520, 160, 44, 12, 16, 26];
const LOWEST_DB = -60;

export const y = scaleLinear([0, LOWEST_DB], [TOP, HEIGHT - BOTTOM]);

export const PLOT = {
  width: WIDTH,
  height: HEIGHT,
  left: LEFT,
  right: WIDTH - RIGHT,
  top: TOP,
  lowestDb: LOWEST_DB,
  levels: [0, -20, -40, -60].map((db) => [y(db), db === 0 ? "0 dB" : `−${String(-db)}`] as const),
};

/** A band in few letters. */
export const hertz = (hz: number): string => (hz >= 1000 ? `${String(hz / 1000)}k` : String(hz));
