import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, ask } from "../api/client";
import { useTitle } from "../shell/focus";
import { Failed, Loading } from "../shell/States";
import { say } from "../text/say";

/** What is at the fire, for a screen on the shelf: one touch opens a piece at the anvil. */
export function ShelfPage() {
  useTitle(say("shelf.title"));
  const fires = useQuery({ queryKey: ["sessions", "shelf"], queryFn: () => ask(api.GET("/api/v1/shelf/fires")) });
  if (fires.isPending) return <Loading />;
  if (fires.isError) return <Failed error={fires.error} retry={() => void fires.refetch()} />;
  return (
    <main className="h-full overflow-y-auto p-6" data-testid="shelf">
      <h1 className="mb-4 text-4xl">{say("shelf.title")}</h1>
      {fires.data.length === 0 && <p className="text-xl">{say("shelf.empty")}</p>}
      <ul className="grid gap-3">
        {fires.data.map((f) => (
          <li key={f.pieceId}>
            <Link
              to={`/pieces/${f.pieceId}/fire`}
              className="flex min-h-16 flex-wrap items-baseline gap-x-6 border-l-4 border-act bg-raised px-5 py-3"
            >
              <span className="narrow text-3xl">{f.name}</span>
              <span className="text-xl text-quiet">{say("shelf.heats", { done: f.trips, of: f.heats })}</span>
            </Link>
          </li>
        ))}
      </ul>
    </main>
  );
}
