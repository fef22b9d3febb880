// The shopping list to take along, and where its prices come from.
import { useState } from "react";
import { flushSync } from "react-dom";

import type { Advice } from "../api/buying";
import { api, type Plan, type Schemas } from "../api/client";
import { Button } from "../ui/button";
import { handOut, stemOf } from "../ui/download";
import { ShoppingPaper } from "./ShoppingPaper";

const TYPES = { csv: ["text/csv", "csv"], markdown: ["text/markdown", "md"] } as const;

export function Shopping({ plan, advice }: { plan: Plan; advice: Advice }) {
  const { prices, kit } = advice;
  const [printing, setPrinting] = useState(false);
  const print = () => {
    flushSync(() => setPrinting(true));
    window.print();
    setPrinting(false);
  };
  const save = async (format: Schemas["ListFormat"]) => {
    const text = await api.shopping({ plan, items: kit, prices, format });
    const [type, ending] = TYPES[format];
    handOut(new Blob([text], { type }), `${stemOf(plan.name)}-shopping.${ending}`);
  };
  return (
    <div className="mt-2 grid gap-2">
      {kit.length > 0 && (
        <p className="flex flex-wrap gap-2">
          <Button size="small" onClick={() => void save("markdown")}>
            Save the list as text
          </Button>
          <Button size="small" onClick={() => void save("csv")}>
            Save it as a table
          </Button>
          <Button size="small" onClick={print}>
            Print it
          </Button>
        </p>
      )}
      {printing && (
        <ShoppingPaper corner={plan.name} advice={advice} currency={plan.brief.money?.currency ?? ""} />
      )}
      <p className="text-faint text-xs">
        Prices: {prices.source}
        {prices.dated === "" ? "" : `, ${prices.dated}`}. The choice under the budget is exact; each score is
        that of the corner laid out with what is bought.
      </p>
    </div>
  );
}
