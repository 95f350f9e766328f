import { expect, test, vi } from "vitest";
import { released } from "./released";

const key = (type: string, code: string) => dispatchEvent(new KeyboardEvent(type, { code }));

test("what a key asks for opens when it is up, once", () => {
  vi.useFakeTimers();
  const open = vi.fn();
  key("keydown", "Enter");
  released(open);
  key("keydown", "Enter"); // it repeats
  vi.runAllTimers();
  expect(open).not.toHaveBeenCalled();
  key("keyup", "Enter");
  vi.runAllTimers();
  key("keydown", "KeyA");
  key("keyup", "KeyA");
  vi.runAllTimers();
  expect(open).toHaveBeenCalledTimes(1);
  vi.useRealTimers();
});

test("with no key down, or where the window was left with one down, it opens at once", () => {
  vi.useFakeTimers();
  const open = vi.fn();
  released(open);
  vi.runAllTimers();
  expect(open).toHaveBeenCalledTimes(1);
  key("keydown", "Enter");
  released(open);
  dispatchEvent(new Event("blur"));
  vi.runAllTimers();
  expect(open).toHaveBeenCalledTimes(2);
  vi.useRealTimers();
});
