// What was spent on what is owned, and what each thing costs for a year of its life.
import { useQuery } from "@tanstack/react-query";

import { api, type Plan } from "../api/client";
import { Section, SHEET } from "../ui/Section";
import { Trouble, Waiting } from "../ui/states";
import { sum } from "./sums";

export function LedgerTable({ plan }: { plan: Plan }) {
  const ledger = useQuery({
    queryKey: ["ledger", plan.brief],
    queryFn: () => api.ledger(plan.brief),
    staleTime: Infinity,
  });
  const currency = plan.brief.money?.currency ?? "";
  if (ledger.isPending) return <Waiting what="Adding up" />;
  if (ledger.isError) return <Trouble error={ledger.error} onRetry={() => void ledger.refetch()} />;
  const { rows, paid, per_year: yearly } = ledger.data;
  return (
    <Section title="What has been spent">
      {rows.length === 0 ? (
        <p className="text-sm">Nothing on the shelf has a price yet.</p>
      ) : (
        <div className={`${SHEET} overflow-x-auto`}>
          <table className="w-full text-sm">
            <thead>
              <tr className="text-faint text-left text-xs">
                {["Thing", "Bought", "Paid", "A year"].map((title) => (
                  <th key={title} className="px-3 py-1.5 font-semibold">
                    {title}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody className="divide-line divide-y">
              {rows.map((row) => (
                <tr key={row.id}>
                  <td className="px-3 py-1.5">{row.count > 1 ? `${row.count} × ${row.label}` : row.label}</td>
                  <td className="px-3 py-1.5">{row.date ?? ""}</td>
                  <td className="px-3 py-1.5">
                    {sum(row.paid, currency)}
                    {row.assumed && <span className="text-faint"> (list price)</span>}
                  </td>
                  <td className="px-3 py-1.5">{row.per_year == null ? "" : sum(row.per_year, currency)}</td>
                </tr>
              ))}
            </tbody>
            <tfoot>
              <tr className="border-line border-t font-semibold">
                <td className="px-3 py-1.5" colSpan={2}>
                  Together
                </td>
                <td className="px-3 py-1.5">{sum(paid, currency)}</td>
                <td className="px-3 py-1.5">{yearly > 0 ? sum(yearly, currency) : ""}</td>
              </tr>
            </tfoot>
          </table>
        </div>
      )}
    </Section>
  );
}
