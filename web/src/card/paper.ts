// Papers that the card prints on.

export const PAPERS = {
  a4: { words: "A4", mm: [210, 297] },
  letter: { words: "Letter", mm: [215.9, 279.4] },
} as const;

export type Paper = keyof typeof PAPERS;
