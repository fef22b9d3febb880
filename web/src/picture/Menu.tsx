// What lies over the picture, switched on and off.
import { Popover, RadioGroup, ToggleGroup } from "radix-ui";

import { GUIDES, OVERLAYS, type Options } from "./options";

interface Props {
  options: Options;
  onChange: (change: Partial<Options>) => void;
  portrait: boolean;
  /** The eyes close up. */
  onCloser: () => void;
  /** The picture as a file; nothing until there is one. */
  onSave: (() => void) | null;
}

const ITEM =
  "data-[state=on]:bg-ember-soft data-[state=checked]:bg-ember-soft min-h-8 cursor-pointer rounded-lg px-3 text-left text-sm";

export function Menu({ options, onChange, portrait, onCloser, onSave }: Props) {
  const guides = GUIDES.filter(([id]) => id !== "vertical" || !portrait);
  return (
    <Popover.Root>
      <Popover.Trigger className="min-h-6 cursor-pointer rounded border border-white/70 px-2 text-xs">
        Show
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label="What the picture shows"
          align="end"
          sideOffset={4}
          className="border-line bg-paper text-ink z-30 grid gap-2 rounded-xl max-h-(--radix-popover-content-available-height) overflow-auto border p-2"
        >
          <div className="grid grid-cols-2 gap-x-2">
            <div className="grid content-start gap-2">
              <Titled title="As">
                <RadioGroup.Root
                  value={options.lines ? "lines" : "photo"}
                  onValueChange={(as) => onChange({ lines: as === "lines" })}
                  aria-label="The picture as"
                  className="grid gap-1"
                >
                  <RadioGroup.Item value="photo" className={ITEM}>
                    {options.lines ? "" : "✓ "}Photograph
                  </RadioGroup.Item>
                  <RadioGroup.Item value="lines" className={ITEM}>
                    {options.lines ? "✓ " : ""}Line drawing
                  </RadioGroup.Item>
                </RadioGroup.Root>
              </Titled>
              <Titled title="Exposure over it">
                <RadioGroup.Root
                  value={options.overlay}
                  disabled={options.lines}
                  onValueChange={(overlay) => onChange({ overlay: overlay as Options["overlay"] })}
                  aria-label="Exposure over the picture"
                  className="grid gap-1"
                >
                  {OVERLAYS.map(([id, label]) => (
                    <RadioGroup.Item key={id} value={id} className={ITEM}>
                      {options.overlay === id ? "✓ " : ""}
                      {label}
                    </RadioGroup.Item>
                  ))}
                </RadioGroup.Root>
              </Titled>
            </div>
            <Titled title="Guides">
              <ToggleGroup.Root
                type="multiple"
                value={options.guides}
                onValueChange={(on) => onChange({ guides: on })}
                aria-label="Guides in the picture"
                className="grid gap-1"
              >
                {guides.map(([id, label]) => (
                  <ToggleGroup.Item key={id} value={id} className={ITEM}>
                    {options.guides.includes(id) ? "✓ " : ""}
                    {label}
                  </ToggleGroup.Item>
                ))}
              </ToggleGroup.Root>
            </Titled>
          </div>
          {!options.lines && (
            <div className="border-line grid grid-cols-2 gap-1 border-t pt-2">
              <Popover.Close className={ITEM} onClick={onCloser}>
                The eyes, close up
              </Popover.Close>
              {onSave && (
                <Popover.Close className={ITEM} onClick={onSave}>
                  Save as PNG
                </Popover.Close>
              )}
            </div>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Titled({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <div>
      <p className="text-faint px-3 text-xs">{title}</p>
      {children}
    </div>
  );
}
