// On every page, as long as Fogon listens on the home network.
import { Banner } from "../ui/Banner";
import { Button } from "../ui/button";
import { useDoor } from "./useDoor";

export function OpenToPhones() {
  const { told, shut } = useDoor();
  if (!told?.address) return null;
  const count = told.phones.length;
  const phones =
    count === 0
      ? "no phone is let in yet"
      : count === 1
        ? "one phone is let in"
        : `${String(count)} phones are let in`;
  return (
    <Banner
      kind="tell"
      className="home-strip"
      words={`Fogon listens on your home network at ${new URL(told.address).host}: ${phones}.`}
    >
      <Button size="small" disabled={shut.isPending} onClick={() => shut.mutate()}>
        Stop listening
      </Button>
    </Banner>
  );
}
