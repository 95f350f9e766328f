import { KeyRound } from "lucide-react";
import { say } from "../text/say";

/** What a browser without the key of this start is told. */
export function Locked() {
  return (
    <main className="flex h-full items-center justify-center p-6">
      <div className="max-w-lg">
        <h1 className="mb-4 flex items-center gap-3 text-3xl">
          <KeyRound size={28} aria-hidden /> {say("locked.title")}
        </h1>
        <p className="mb-4">{say("locked.what")}</p>
        <pre className="mb-4 rounded border border-line bg-raised p-3 select-all">coldember open</pre>
        <p className="text-quiet">{say("locked.then")}</p>
      </div>
    </main>
  );
}
