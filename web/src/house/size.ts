// Sizes of files in words.

const MB = new Intl.NumberFormat("en", { maximumFractionDigits: 1, style: "unit", unit: "megabyte" });
const KB = new Intl.NumberFormat("en", { maximumFractionDigits: 0, style: "unit", unit: "kilobyte" });

export const size = (bytes: number): string =>
  bytes < 1e6 ? KB.format(Math.max(1, bytes / 1e3)) : MB.format(bytes / 1e6);
