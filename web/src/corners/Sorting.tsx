// Finding one of many corners.
import { Choice, TextField } from "../ui/fields";
import { ORDERS, type Order } from "./sorted";

interface Props {
  many: number;
  order: Order;
  wanted: string;
  onOrder: (order: Order) => void;
  onWanted: (wanted: string) => void;
}

/** So few are seen at once. */
const FEW = 4;

export function Sorting({ many, order, wanted, onOrder, onWanted }: Props) {
  if (many < FEW) return null;
  return (
    <div className="mb-4 flex flex-wrap items-end gap-3">
      <div className="w-64">
        <TextField label="Find" placeholder="Part of a name" value={wanted} onText={onWanted} />
      </div>
      <div className="w-48">
        <Choice label="Sort" value={order} options={ORDERS} onPick={(to) => onOrder(to as Order)} />
      </div>
    </div>
  );
}
