// Places that are no step of the work: the take, comparing, the history, the shelf, the schools.
import type { Corner, Plan } from "../api/client";
import { ComparePage } from "../compare/ComparePage";
import { HistoryPage } from "../history/HistoryPage";
import { SchoolsPage } from "../schools/SchoolsPage";
import { ShelfPage } from "../shelf/ShelfPage";
import { TakePage } from "../take/TakePage";
import type { PlaceName } from "../table/place";
import type { UnitSystem } from "../units/length";

interface Props {
  beside: PlaceName;
  corner: Corner;
  plan: Plan;
  units: UnitSystem;
}

const TITLES: Record<PlaceName, string> = {
  take: "Take",
  compare: "Compare layouts and saves",
  history: "History: every save of this corner",
  shelf: "Shelf: what you have",
  schools: "Schools: where practitioners disagree",
};

export default function Beside({ beside, corner, plan, units }: Props) {
  return (
    <>
      <h2 className="mb-3 text-lg font-bold">{TITLES[beside]}</h2>
      {beside === "take" && <TakePage corner={corner} plan={plan} />}
      {beside === "compare" && <ComparePage corner={corner} plan={plan} units={units} />}
      {beside === "history" && <HistoryPage corner={corner} plan={plan} units={units} />}
      {beside === "shelf" && <ShelfPage plan={plan} />}
      {beside === "schools" && <SchoolsPage plan={plan} units={units} />}
    </>
  );
}
