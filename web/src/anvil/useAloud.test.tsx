import { render } from "@testing-library/react";
import { beforeEach, expect, test, vi } from "vitest";
import type { Shown } from "./core";
import { speak, tone } from "./sound";
import { useAloud } from "./useAloud";

vi.mock("./sound", () => ({ tone: vi.fn(), speak: vi.fn(() => true) }));

function shown(view: Partial<Shown["view"]>): Shown {
  return { view: { phase: "out", step: 0, trip: 1, leftS: 12, ...view }, state: {} } as Shown;
}

function Aloud({ shown, quiet }: { shown: Shown; quiet: boolean }) {
  useAloud(shown, "Draw the tang", quiet);
  return null;
}

beforeEach(() => vi.clearAllMocks());

test("the last three seconds are counted, once each, and then that it is cold", () => {
  const { rerender } = render(<Aloud shown={shown({})} quiet={false} />);
  for (const leftS of [2.9, 2.7, 1.8, 1.1, 0.6, 0.2])
    rerender(<Aloud shown={shown({ leftS, last: true })} quiet={false} />);
  expect(vi.mocked(speak).mock.calls.map(([w]) => w)).toEqual(["3", "2", "1"]);
  rerender(<Aloud shown={shown({ leftS: -0.1, cold: true })} quiet={false} />);
  rerender(<Aloud shown={shown({ leftS: -2, cold: true })} quiet={false} />);
  expect(vi.mocked(speak).mock.lastCall).toEqual(["Back"]);
  expect(vi.mocked(tone)).toHaveBeenCalledTimes(4);
});

test("what comes next is said in the fire, and nothing where it is to be quiet", () => {
  const { rerender } = render(<Aloud shown={shown({})} quiet={false} />);
  rerender(<Aloud shown={shown({ phase: "fire", step: 1 })} quiet={false} />);
  expect(vi.mocked(speak)).toHaveBeenLastCalledWith("Draw the tang");
  rerender(<Aloud shown={shown({ phase: "fire", step: 1, hot: true })} quiet={false} />);
  expect(vi.mocked(speak)).toHaveBeenLastCalledWith("Hot");
  vi.clearAllMocks();
  rerender(<Aloud shown={shown({ last: true, leftS: 2 })} quiet={true} />);
  expect(vi.mocked(speak)).not.toHaveBeenCalled();
  expect(vi.mocked(tone)).not.toHaveBeenCalled();
});
