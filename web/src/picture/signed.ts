// Stops with their sign; less than half a tenth has none.
import { fixed } from "../units/length";

export const signed = (stops: number) =>
  `${Math.abs(stops) < 0.05 ? "±" : stops < 0 ? "−" : "+"}${fixed(Math.abs(stops), 1)}`;
