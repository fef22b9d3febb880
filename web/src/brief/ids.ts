/** An id that nothing else in a list has: the name itself, then name-2 and on. */
export function freeId(name: string, taken: readonly { id: string }[]): string {
  for (let number = 1; ; number += 1) {
    const id = number === 1 ? name : `${name}-${number}`;
    if (taken.every((other) => other.id !== id)) return id;
  }
}
