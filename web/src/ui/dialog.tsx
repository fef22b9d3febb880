// Dialogs: one that shows, one that asks before something is done. Both take the focus and give it back; Escape closes them.
import { AlertDialog, Dialog } from "radix-ui";

import { button } from "./button";
import { Icon } from "./icons";
import { useOpener } from "./opener";

const OVERLAY = "fixed inset-0 z-20 bg-black/45";
const CONTENT =
  "border-line bg-paper text-ink fixed top-1/2 left-1/2 z-30 max-h-[88vh] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-xl border p-5";

interface ShowProps {
  title: string;
  /** What opens it; without one it is opened by `open`. */
  trigger?: React.ReactNode;
  open?: boolean;
  onOpenChange?: (open: boolean) => void;
  /** As wide as pictures want. */
  wide?: boolean;
  children: React.ReactNode;
}

const WIDTH = { words: "w-[min(94vw,40rem)]", pictures: "w-[min(94vw,68rem)]" };

export function Show({ title, trigger, wide = false, children, ...rest }: ShowProps) {
  const opener = useOpener();
  return (
    <Dialog.Root {...rest}>
      {trigger !== undefined && <Dialog.Trigger asChild>{trigger}</Dialog.Trigger>}
      <Dialog.Portal>
        <Dialog.Overlay className={OVERLAY} />
        <Dialog.Content
          className={`${CONTENT} ${wide ? WIDTH.pictures : WIDTH.words}`}
          aria-describedby={undefined}
          {...opener}
        >
          <Dialog.Title className="mb-3 pr-10 text-lg font-bold">{title}</Dialog.Title>
          {children}
          {/* Last, so that what is filled in has the focus first. */}
          <Dialog.Close
            className={button({ size: "icon", look: "quiet", className: "absolute top-3 right-3" })}
            aria-label="Close"
          >
            <Icon name="close" />
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

interface AskProps {
  title: string;
  words: string;
  yes: string;
  no: string;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  onYes: () => void;
}

export function Ask({ title, words, yes, no, open, onOpenChange, onYes }: AskProps) {
  const opener = useOpener();
  return (
    <AlertDialog.Root open={open} onOpenChange={onOpenChange}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className={OVERLAY} />
        <AlertDialog.Content className={`${CONTENT} ${WIDTH.words}`} {...opener}>
          <AlertDialog.Title className="mb-2 text-lg font-bold">{title}</AlertDialog.Title>
          <AlertDialog.Description>{words}</AlertDialog.Description>
          <div className="mt-4 flex flex-wrap justify-end gap-2">
            <AlertDialog.Cancel className={button()}>{no}</AlertDialog.Cancel>
            <AlertDialog.Action className={button({ look: "act" })} onClick={onYes}>
              {yes}
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
