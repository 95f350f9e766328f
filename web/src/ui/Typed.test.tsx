import { fireEvent, render, screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { Units } from "../api/hooks";
import { Typed } from "./Typed";

function show(props: Partial<Parameters<typeof Typed>[0]> = {}) {
  const calls = { onType: vi.fn(), onRevert: vi.fn(), onDone: vi.fn() };
  render(
    <Units value="in">
      <Typed field="design.lengthMm" value={31.75} label="Blade length" {...calls} {...props} />
    </Units>,
  );
  return { ...calls, input: screen.getByLabelText<HTMLInputElement>("Blade length") };
}

describe("a typed figure", () => {
  it("opens with what is stored, in the units shown", () => {
    expect(show().input.value).toBe("1 1/4");
    expect(screen.getByText("in")).toBeDefined();
  });
  it("hands over what is typed and keeps it on Enter", () => {
    const { input, onType, onDone } = show();
    fireEvent.change(input, { target: { value: "2 3/8" } });
    expect(onType).toHaveBeenCalledWith("2 3/8");
    fireEvent.change(input, { target: { value: "1 1/4" } });
    expect(onType).toHaveBeenCalledTimes(1);
    fireEvent.keyDown(input, { key: "Enter" });
    expect(onDone).toHaveBeenCalledTimes(1);
  });
  it("takes back what is typed on Escape, and then lets go", () => {
    const { input, onRevert } = show({ text: "7" });
    input.focus();
    fireEvent.keyDown(input, { key: "Escape" });
    expect(onRevert).toHaveBeenCalledTimes(1);
    expect(document.activeElement).toBe(input);
  });
  it("lets go on Escape when nothing is typed", () => {
    const { input } = show();
    input.focus();
    fireEvent.keyDown(input, { key: "Escape" });
    expect(document.activeElement).not.toBe(input);
  });
  it("asks nothing of the server when it is left as it was", () => {
    const { input, onDone } = show();
    fireEvent.focus(input);
    fireEvent.blur(input);
    expect(onDone).not.toHaveBeenCalled();
  });
  it("points at the character that is wrong", () => {
    const { input } = show({
      text: "2 ¼ x",
      error: { field: "f", code: "quantity.unit", message: "No unit.", offset: 5 },
    });
    expect(input.value).toBe("2 ¼ x");
    expect(input.getAttribute("aria-invalid")).toBe("true");
    const alert = screen.getByRole("alert");
    expect(alert.textContent).toContain("No unit.");
    expect(alert.querySelector("u")?.textContent).toBe("x");
    expect(input.getAttribute("aria-describedby")).toBe(alert.id);
  });
});
