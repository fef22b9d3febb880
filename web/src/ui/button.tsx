// Buttons: one that acts, usual ones, quiet ones; and links that look like them.
import { cva, type VariantProps } from "class-variance-authority";
import { Link, type LinkProps } from "react-router";

export const button = cva(
  "inline-flex cursor-pointer items-center justify-center gap-2 rounded-lg border text-sm font-semibold disabled:cursor-default disabled:opacity-55 aria-disabled:opacity-55",
  {
    variants: {
      look: {
        act: "bg-ember border-ember text-paper enabled:hover:brightness-110",
        usual: "border-line bg-paper text-ink hover:border-ink aria-pressed:border-ink aria-pressed:border-2",
        quiet: "text-ink hover:bg-desk border-transparent bg-transparent",
      },
      size: {
        usual: "min-h-10 px-3.5 py-1.5",
        small: "min-h-8 px-2.5 py-0.5",
        icon: "h-9 w-9 shrink-0 p-0",
      },
    },
    defaultVariants: { look: "usual", size: "usual" },
  },
);

type Looks = VariantProps<typeof button>;

export function Button({
  look,
  size,
  className,
  type = "button",
  ...rest
}: React.ComponentProps<"button"> & Looks) {
  return <button type={type} className={button({ look, size, className })} {...rest} />;
}

export function ButtonLink({ look, size, className, ...rest }: LinkProps & Looks) {
  return <Link className={button({ look, size, className })} {...rest} />;
}

/** A link to a file that the server hands out. */
export function FileLink({ look, size, className, ...rest }: React.ComponentProps<"a"> & Looks) {
  return <a className={button({ look, size, className })} {...rest} />;
}
