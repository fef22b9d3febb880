// The shopping list on paper, alone on its sheet: boxes to tick, prices, why, cautions.
import { createPortal } from "react-dom";

import type { Advice } from "../api/buying";
import { sum } from "./sums";

interface Props {
  corner: string;
  advice: Advice;
  currency: string;
}

export function ShoppingPaper({ corner, advice, currency }: Props) {
  const { kit, prices, spent } = advice;
  return createPortal(
    <article className="print-only" aria-label="Shopping list on paper">
      <h1 className="text-xl font-bold">Shopping list: {corner}</h1>
      <ul className="my-4 grid gap-3">
        {kit.map((item) => (
          <li key={item.id} className="grid grid-cols-[1.5rem_minmax(0,1fr)_auto] gap-x-2 break-inside-avoid">
            <span aria-hidden className="mt-1 size-4 border border-black" />
            <span>
              <b>
                {item.count > 1 && `${String(item.count)} x `}
                {item.label}
              </b>
              {item.price_new != null && `, used (new ${sum(item.price_new, currency)})`}
              <span className="block text-sm">{item.reason}</span>
              {item.rent_first != null && (
                <span className="block text-sm">
                  Rent it for a day first: {sum(item.rent_first, currency)}.
                </span>
              )}
              {item.caution !== "" && <span className="block text-sm">Caution: {item.caution}</span>}
            </span>
            <b>{sum(item.price, currency)}</b>
          </li>
        ))}
      </ul>
      <p>
        Together <b>{sum(spent, currency)}</b>. Prices: {prices.source}
        {prices.dated === "" ? "" : `, ${prices.dated}`}.
      </p>
    </article>,
    document.body,
  );
}
