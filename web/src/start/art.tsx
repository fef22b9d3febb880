// Small drawings of cameras, lamps and microphones: how each looks from a step away, in lines of our own.

const DRAWN = {
  phone: "M22 6h20v52H22zM29 10h6M28 16a3 3 0 1 0 .1 0M29 53h6",
  "phone-two": "M22 6h20v52H22zM28 13a3 3 0 1 0 .1 0M28 22a3 3 0 1 0 .1 0M29 53h6",
  webcam: "M10 40h44v4H10zM22 24a10 10 0 1 0 20 0a10 10 0 1 0-20 0M28 24a4 4 0 1 0 8 0a4 4 0 1 0-8 0M32 34v6",
  compact: "M10 20h44v28H10zM32 34m-9 0a9 9 0 1 0 18 0a9 9 0 1 0-18 0M14 24h6M46 20v-4h6v4",
  camera:
    "M8 20h48v30H8zM22 20l4-7h12l4 7M32 35m-11 0a11 11 0 1 0 22 0a11 11 0 1 0-22 0M32 35m-5 0a5 5 0 1 0 10 0a5 5 0 1 0-10 0",
  "camera-large":
    "M5 17h54v36H5zM20 17l5-9h14l5 9M32 35m-13 0a13 13 0 1 0 26 0a13 13 0 1 0-26 0M32 35m-7 0a7 7 0 1 0 14 0a7 7 0 1 0-14 0M9 22h6",
  softbox: "M20 6h20l12 12v16L40 46H20L12 34V18zM20 6l6 14h10l4-14M12 34l14-8M40 46l-4-20M32 46v14M24 60h16",
  panel: "M12 10h40v28H12zM18 16h28v16H18zM32 38v20M24 58h16",
  ring: "M32 26m-19 0a19 19 0 1 0 38 0a19 19 0 1 0-38 0M32 26m-12 0a12 12 0 1 0 24 0a12 12 0 1 0-24 0M32 45v13M24 58h16",
  bulb: "M32 6a14 14 0 0 0-8 25c2 2 3 4 3 7h10c0-3 1-5 3-7A14 14 0 0 0 32 6zM27 42h10M28 46h8M32 50v8",
  small: "M22 12h20v14H22zM26 16h12v6H26zM42 19h10v38M44 57h16",
  board: "M14 6h36v44H14zM14 50l-4 8M50 50l4 8M20 12l24 32",
  boom: "M8 58h14M15 58V16M15 16l34 10M49 26l8 3-2 6-8-3z",
  shotgun: "M8 28h40v8H8zM14 28v8M20 28v8M26 28v8M48 30h8M30 36v8h-8v8h20v-8h-8",
  lavalier: "M32 10m-6 0a6 6 0 1 0 12 0a6 6 0 1 0-12 0M26 18h12v5H26zM32 23c0 16-14 12-14 26v9",
  desk: "M26 8h12v20a6 6 0 0 1-12 0zM20 22a12 12 0 0 0 24 0M32 34v14M20 54h24M26 48h12",
  headset: "M14 34a18 18 0 0 1 36 0v10h-8V32h8M14 34v10h8V32h-8M46 44c0 8-6 10-12 10M30 51h6v6h-6z",
  none: "M12 12l40 40M52 12L12 52",
} as const;

export type Art = keyof typeof DRAWN;

export function Drawn({ art }: { art: Art }) {
  return (
    <svg viewBox="0 0 64 64" className="h-14 w-14" aria-hidden="true">
      <path
        d={DRAWN[art]}
        fill="none"
        stroke="currentColor"
        strokeWidth="2"
        strokeLinejoin="round"
        strokeLinecap="round"
      />
    </svg>
  );
}
