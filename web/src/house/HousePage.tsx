// Where the corners are kept: the file and its snapshots, everything out and in again, the bin, how long saves are kept.
import { Shell } from "../ui/Shell";
import { Bin } from "./Bin";
import { File } from "./File";
import { InAndOut } from "./InAndOut";
import { Thinning } from "./Thinning";

export function HousePage() {
  return (
    <Shell title="Backups and bin">
      <div className="mx-auto grid max-w-5xl items-start gap-5 md:grid-cols-2">
        <div className="grid gap-5">
          <File />
          <Thinning />
        </div>
        <div className="grid gap-5">
          <InAndOut />
          <Bin />
        </div>
      </div>
    </Shell>
  );
}
