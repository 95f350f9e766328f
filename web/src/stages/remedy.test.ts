import { describe, expect, it } from "vitest";
import { say } from "../text/say";
import { remedyWords } from "./remedy";

describe("what a remedy would do", () => {
  it("is said in the smith's units", () => {
    expect(remedyWords({ field: "bar.thicknessMm", mm: 5.4 }, "mm")).toBe("Take a bar 5.4 mm thick");
    expect(remedyWords({ field: "bar.thicknessMm", mm: 5.4 }, "in")).toBe("Take a bar 0.213 in thick");
    expect(remedyWords({ field: "fire.soakC", text: "1080 °C" }, "mm")).toBe("Take it to 1080 °C");
    expect(remedyWords({ field: "fire.soakC", text: "1080 °C" }, "in")).toContain("°F");
  });

  it("names a hole, a tool and a choice by what they are", () => {
    expect(remedyWords({ field: "design.tang.holes.1.atMm", mm: 14 }, "mm")).toBe("Move the hole to 14 mm");
    expect(remedyWords({ field: "tool.profile", text: "planner" }, "mm")).toBe("Back to the planner’s tool");
    expect(remedyWords({ field: "choices.harden", text: "later" }, "mm")).toBe("Harden it later");
  });

  it("tells both of two figures, and has a word for a field it does not know", () => {
    const both = { field: "bar.thicknessMm", mm: 4, and: [{ field: "allowances.faceMm", mm: 0.15 }] };
    expect(remedyWords(both, "mm")).toBe("Take a bar 4 mm thick, leave 0.15 mm on each face");
    expect(remedyWords({ field: "no.such", text: "x" }, "mm")).toBe(say("warn.remedy"));
  });
});
