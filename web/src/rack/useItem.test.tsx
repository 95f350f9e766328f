import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, renderHook } from "@testing-library/react";
import type { ReactNode } from "react";
import { expect, it, vi } from "vitest";
import { api, type Stock } from "../api/client";
import { useItem } from "./useItem";

it("keeps two fields one after the other, so that the second comes with the version that the first left", async () => {
  const versions: number[] = [];
  let now = 7;
  const patch = vi.spyOn(api, "PATCH").mockImplementation((async (
    _: string,
    { body }: { body: { version: number } },
  ) => {
    versions.push(body.version);
    await new Promise((done) => setTimeout(done, 5));
    if (body.version !== now)
      return { error: { status: 409, detail: "stale" }, response: new Response(null, { status: 409 }) };
    return { data: { id: "a", version: ++now }, response: new Response() };
  }) as never);
  try {
    const client = new QueryClient();
    const wrapper = ({ children }: { children: ReactNode }) => (
      <QueryClientProvider client={client}>{children}</QueryClientProvider>
    );
    const { result } = renderHook(() => useItem({ id: "a", version: 7 } as Stock), { wrapper });
    await act(async () => {
      const both = [result.current.save("name", "Bar"), result.current.save("place", "Shed")];
      expect(await Promise.all(both)).toEqual([true, true]);
    });
    expect(versions).toEqual([7, 8]);
    expect(result.current.general).toBe("");
  } finally {
    patch.mockRestore();
  }
});
