import { fireEvent, render, screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { Boundary } from "./Boundary";

it("keeps the frame when a page fails, and draws it again", () => {
  vi.spyOn(console, "error").mockImplementation(() => {});
  let broken = true;
  const Page = () => {
    if (broken) throw new Error("broken");
    return <p>whole</p>;
  };
  render(
    <Boundary>
      <Page />
    </Boundary>,
  );
  expect(screen.getByRole("alert").textContent).toContain("Nothing was lost");
  broken = false;
  fireEvent.click(screen.getByRole("button"));
  expect(screen.getByText("whole")).toBeDefined();
});
