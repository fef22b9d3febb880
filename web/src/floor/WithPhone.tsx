// Letting a phone in: an address to photograph, a code to type, and who is in.
import { Button } from "../ui/button";
import { SHEET } from "../ui/Section";
import { Trouble } from "../ui/states";
import { useDoor } from "./useDoor";

export function WithPhone() {
  const { told, open, shut, putOut } = useDoor();
  if (!told?.address)
    return (
      <div className="grid gap-2">
        <p className="text-sm">
          Your phone shows one mark at a time and ticks it. For that Fogon listens on your home network until
          you stop it.
        </p>
        {told && <p className="text-faint text-sm">{told.caution}</p>}
        <div>
          <Button disabled={open.isPending} onClick={() => open.mutate()}>
            Let a phone in
          </Button>
        </div>
        {open.error && <Trouble error={open.error} />}
      </div>
    );
  const { picture, code, address } = told;
  return (
    <div className="grid gap-3">
      <div className={`${SHEET} flex flex-wrap items-center gap-5 p-4`}>
        {picture && (
          <img
            className="h-44 w-44 bg-white"
            alt={`The address ${address} as a picture for the phone's camera`}
            src={`data:image/svg+xml;utf8,${encodeURIComponent(picture)}`}
          />
        )}
        <div className="grid gap-1">
          <p className="text-sm">1. Point the phone&rsquo;s camera at the picture, or open</p>
          <p className="font-semibold break-all">{address}</p>
          <p className="mt-2 text-sm">2. Type this code there</p>
          <p className="text-5xl font-bold tracking-widest">{code}</p>
          <p className="text-faint text-sm">
            {told.pause_s
              ? `Too many wrong codes: wait ${String(told.pause_s)} seconds.`
              : `Good for one phone and ${minutes(told.code_s ?? 0)}.`}
          </p>
        </div>
      </div>
      {told.phones.length > 0 && (
        <ul aria-label="Phones" className={`${SHEET} divide-line divide-y text-sm`}>
          {told.phones.map((phone) => (
            <li key={phone.number} className="flex flex-wrap items-center gap-2 px-3 py-1.5">
              <span className="font-semibold">Phone {phone.number}</span>
              <span className="text-faint mr-auto">
                at {phone.at}, {phone.seen_s < 30 ? "here now" : `last seen ${ago(phone.seen_s)} ago`}; let in
                for {ago(phone.left_s)} more
              </span>
              <Button size="small" onClick={() => putOut.mutate(phone.number)}>
                Put out
              </Button>
            </li>
          ))}
        </ul>
      )}
      <p className="text-faint text-sm">{told.caution}</p>
      <div>
        <Button disabled={shut.isPending} onClick={() => shut.mutate()}>
          Stop listening
        </Button>
      </div>
    </div>
  );
}

const minutes = (seconds: number) =>
  seconds < 60
    ? "less than a minute"
    : seconds < 120
      ? "a minute"
      : `${String(Math.floor(seconds / 60))} minutes`;

const ago = (seconds: number) =>
  seconds < 3600
    ? `${String(Math.max(1, Math.round(seconds / 60)))} min`
    : `${String(Math.round(seconds / 3600))} h`;
