// How menus look.
export const MENU = "border-line bg-paper text-ink z-30 min-w-52 rounded-xl border p-1";
export const MENU_ITEM =
  "data-[highlighted]:bg-desk flex min-h-10 cursor-pointer items-center rounded-lg px-3 text-sm font-semibold outline-none data-[highlighted]:underline";
