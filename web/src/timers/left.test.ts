import { expect, test } from "vitest";
import { clock, leftS } from "./left";

test("a timer is told in hours, minutes and seconds, and by how long it has rung", () => {
  expect([0.2, 9, 61, 3600, 5025.4, -3.5, -75].map(clock)).toEqual([
    "0:01",
    "0:09",
    "1:01",
    "1:00:00",
    "1:23:46",
    "+0:03",
    "+1:15",
  ]);
});

test("what is left is by the world's clock, over midnight and over a change of the hour", () => {
  const due = "2026-10-25T03:10:00+01:00"; // after the hour came twice
  expect(leftS(due, new Date("2026-10-25T02:50:00+02:00").getTime())).toBe(80 * 60);
  expect(leftS("2026-11-27T00:00:30Z", new Date("2026-11-26T23:59:50Z").getTime())).toBe(40);
});
