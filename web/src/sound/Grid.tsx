// Level lines of a picture with their figures to the left, and what stands under it.
interface Props {
  left: number;
  right: number;
  /** Height of each line in the picture, with its figure. */
  lines: readonly (readonly [number, string])[];
  /** Place of each figure under the picture. */
  under: readonly (readonly [number, string])[];
  /** Where those stand. */
  foot: number;
}

export function Grid({ left, right, lines, under, foot }: Props) {
  return (
    <>
      {lines.map(([y, figure]) => (
        <g key={figure}>
          <line x1={left} x2={right} y1={y} y2={y} className="plot-line" />
          <text x={left - 6} y={y + 4} textAnchor="end">
            {figure}
          </text>
        </g>
      ))}
      {under.map(([x, figure]) => (
        <text key={figure} x={x} y={foot} textAnchor="middle">
          {figure}
        </text>
      ))}
    </>
  );
}
