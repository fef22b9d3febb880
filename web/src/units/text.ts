// Small changes to words.

export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** An id as people read it: `side-angle` is "side angle". */
export const spoken = (id: string): string => id.replaceAll("-", " ");

/** So many of something: "1 finding", "2 findings". */
export const count = (many: number, one: string, more = `${one}s`): string =>
  `${String(many)} ${many === 1 ? one : more}`;
