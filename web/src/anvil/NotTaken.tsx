import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ask } from "../api/client";
import { say } from "../text/say";

/** How long what an instrument told in vain is shown, ms. */
const shownMs = 30_000;

/** What an instrument told that was not taken, while it is new. */
export function NotTaken({ session }: { session: string }) {
  const all = useQuery({ queryKey: ["access"], queryFn: () => ask(api.GET("/api/v1/access")) });
  const [seen, setSeen] = useState("");
  const late = all.data
    ?.filter((a) => a.last && !a.last.taken && (!a.last.session || a.last.session === session))
    .filter((a) => Date.now() - Date.parse(a.last?.at ?? "") < shownMs)
    .at(-1);
  const key = `${late?.id} ${late?.last?.at}`;
  if (!late || key === seen) return null;
  return (
    <p
      role="alert"
      className="flex items-center gap-3 text-[clamp(15px,2.5vmin,24px)] text-[#d9b65c]"
      data-testid="not-taken"
    >
      {say("anvil.notTaken", {
        name: late.name,
        value: late.last?.line.value ?? 0,
        unit: late.last?.line.unit ?? "",
        why: late.last?.fields?.[0]?.message ?? "",
      })}
      <button type="button" className="press min-h-11" onClick={() => setSeen(key)}>
        {say("anvil.letGo")}
      </button>
    </p>
  );
}
