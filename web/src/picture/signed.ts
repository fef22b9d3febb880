// Stops with their sign.
import { fixed } from "../units/length";

export const signed = (stops: number) => `${stops < 0 ? "−" : "+"}${fixed(Math.abs(stops), 1)}`;
