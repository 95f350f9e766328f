import { useSetAside } from "../api/hooks";
import { count, say } from "../text/say";

export function Loading() {
  return (
    <p role="status" className="m-auto text-quiet">
      {say("ui.loading")}
    </p>
  );
}

/** What of a list cannot be read: it is set aside and said, and the rest can be used. */
export function SetAside({ kind }: { kind: "pieces" | "patterns" | "stock" }) {
  const aside = useSetAside(kind);
  if (aside.length === 0) return null;
  const newer = aside.filter((u) => u.newer).length;
  return (
    <p role="note" data-testid="set-aside" className="mb-3 border-l-[3px] border-ember pl-2">
      {newer > 0 && `${count("aside.newer", newer)} `}
      {aside.length > newer && count("aside.broken", aside.length - newer)}
    </p>
  );
}

/** What could not be had, with a way to try again. */
export function Failed({ error, retry }: { error: Error; retry: () => void }) {
  return (
    <div role="alert" className="m-auto max-w-md p-6 text-center">
      <p className="mb-3">{error.message || say("ui.offline")}</p>
      <button type="button" className="press" onClick={retry}>
        {say("ui.retry")}
      </button>
    </div>
  );
}
