// Named parts of a page, one at a time, reached with the arrow keys; which one is the caller's to keep.
import { Tabs } from "radix-ui";

interface Props {
  label: string;
  /** Key, name, and how much is in it where that is worth telling. */
  tabs: readonly (readonly [string, string, number | null])[];
  value: string;
  onValue: (key: string) => void;
  children: React.ReactNode;
}

export function Tabbed({ label, tabs, value, onValue, children }: Props) {
  return (
    <Tabs.Root value={value} onValueChange={onValue} activationMode="automatic">
      <Tabs.List aria-label={label} className="border-line flex flex-wrap border-b sm:gap-x-1">
        {tabs.map(([key, name, count]) => (
          <Tabs.Trigger
            key={key}
            value={key}
            className="text-faint data-[state=active]:border-ember data-[state=active]:text-ink -mb-px min-h-9 cursor-pointer border-b-3 border-transparent px-2 text-sm sm:px-3 font-semibold"
          >
            {name}
            {count !== null && count > 0 && (
              <span className="text-faint ml-1.5 font-normal" aria-hidden="true">
                {count}
              </span>
            )}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      <Tabs.Content value={value} className="pt-2 outline-offset-4">
        {children}
      </Tabs.Content>
    </Tabs.Root>
  );
}
