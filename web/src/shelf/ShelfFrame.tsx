import { Suspense, useEffect } from "react";
import { Outlet } from "react-router";
import { Refused } from "../api/client";
import { useEvents } from "../api/events";
import { Units, useShop } from "../api/hooks";
import { Boundary } from "../shell/Boundary";
import { Loading } from "../shell/States";
import { say } from "../text/say";

/** The frame of a screen on the shelf: nothing but the page. */
export function ShelfFrame() {
  useEvents();
  const shop = useShop();
  useEffect(() => {
    document.documentElement.dataset.theme = "night";
  }, []);
  if (shop.error instanceof Refused && shop.error.problem.status === 401)
    return (
      <main className="grid justify-items-start gap-4 p-8 text-2xl">
        <p role="alert">{say("shelf.lost")}</p>
        <a href="/pair" className="press press-act">
          {say("shelf.pairAgain")}
        </a>
      </main>
    );
  return (
    <Units value={shop.data?.system ?? "mm"}>
      <Boundary>
        <Suspense fallback={<Loading />}>
          <Outlet />
        </Suspense>
      </Boundary>
    </Units>
  );
}
