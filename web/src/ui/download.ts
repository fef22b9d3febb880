// Files that the page hands out.

/** Downloads what an address leads to, under a name; without one, under the name that the server gives. */
export function download(url: string, name: string): void {
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
}

/** Hands out what the page itself holds; its address lives no longer than that. */
export function handOut(content: Blob, name: string): void {
  const url = URL.createObjectURL(content);
  download(url, name);
  URL.revokeObjectURL(url);
}

/** A name as the beginning of a file's name. */
export const stemOf = (name: string): string => name.toLowerCase().replaceAll(/[^a-z0-9]+/g, "-");
