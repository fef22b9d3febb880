/** An id that none of some others is: the name itself, then name-2 and on. */
export function freeId(name: string, taken: readonly string[]): string {
  for (let number = 1; ; number += 1) {
    const id = number === 1 ? name : `${name}-${number}`;
    if (!taken.includes(id)) return id;
  }
}
