// @vitest-environment happy-dom
// Files that are handed out leave no address behind.
import { expect, test, vi } from "vitest";

import { handOut, stemOf } from "./download";

test("an address lives no longer than its file is handed out", () => {
  const open = new Set<string>();
  vi.spyOn(URL, "createObjectURL").mockImplementation(() => {
    open.add("blob:one");
    return "blob:one";
  });
  vi.spyOn(URL, "revokeObjectURL").mockImplementation((url) => void open.delete(String(url)));
  const clicked = vi.spyOn(HTMLAnchorElement.prototype, "click").mockImplementation(() => undefined);
  handOut(new Blob(["sound"]), `${stemOf("Field botany, box room")}-a.wav`);
  expect(clicked).toHaveBeenCalledTimes(1);
  expect((clicked.mock.instances[0] as HTMLAnchorElement).download).toBe("field-botany-box-room-a.wav");
  expect(open.size).toBe(0);
});
