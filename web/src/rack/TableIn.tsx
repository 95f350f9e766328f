import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { sendTable, type TableRead } from "../api/client";
import { count, say } from "../text/say";
import { useTyped } from "../ui/useTyped";

/** A table of stock from a file: what it would do is shown first; then all of it, or nothing. */
export function TableIn({ file: dropped, onClose }: { file?: File; onClose: () => void }) {
  const client = useQueryClient();
  const t = useTyped();
  const [file, setFile] = useState(dropped);
  const [read, setRead] = useState<TableRead>();
  const send = async () => {
    if (!file) return;
    const done = await t.attempt(() => sendTable(file, !read));
    if (!done) return;
    if (!done.taken) return setRead(done);
    await client.invalidateQueries({ queryKey: ["stock"] });
    onClose();
  };
  const wrong = t.errorOf("file")?.message ?? t.general;
  return (
    <form
      className="grid gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        void send();
      }}
    >
      <p className="text-quiet">{say("rack.csvHelp")}</p>
      {file === dropped && dropped ? (
        <p>{dropped.name}</p>
      ) : (
        <input
          type="file"
          aria-label={say("rack.csvIn")}
          accept=".csv,text/csv"
          data-field="csv"
          onChange={(e) => {
            setFile(e.target.files?.[0]);
            setRead(undefined);
          }}
        />
      )}
      {read && <WhatItDoes read={read} />}
      {wrong && (
        <p role="alert" className="text-ember">
          {wrong}
        </p>
      )}
      <button type="submit" className="press press-act justify-self-end" disabled={!file}>
        {say(read ? "rack.csvTake" : "rack.csvLook")}
      </button>
    </form>
  );
}

function WhatItDoes({ read }: { read: TableRead }) {
  const rows = read.rows ?? [];
  const added = read.added ?? [];
  return (
    <div role="status" data-testid="table-read" className="grid gap-1 border-l-[3px] border-act pl-3">
      {added.length > 0 && <p>{count("rack.csvNew", added.length, { names: added.join(", ") })}</p>}
      {rows.map((r) => (
        <p key={r.line}>
          {say("rack.csvChanges", {
            name: r.name,
            changes: (r.columns ?? [])
              .map((c) => say("rack.csvColumn", { column: c.column, was: c.was || "–", is: c.is || "–" }))
              .join("; "),
          })}
        </p>
      ))}
      {read.same > 0 && <p className="text-quiet">{count("rack.csvSame", read.same)}</p>}
      {added.length + rows.length === 0 && <p>{say("rack.csvNothing")}</p>}
    </div>
  );
}
