import { say } from "../text/say";

export function Loading() {
  return (
    <p role="status" className="m-auto text-quiet">
      {say("ui.loading")}
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
