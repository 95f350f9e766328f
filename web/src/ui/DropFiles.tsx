import { type ReactNode, useRef, useState } from "react";
import { toast } from "sonner";
import { say } from "../text/say";

/** The last part of a file's name, in small letters. */
export const ending = (f: File): string => f.name.toLowerCase().split(".").at(-1) ?? "";

/** A page that files can be dropped on; what else is dropped is said not to belong here. */
export function DropFiles({
  endings,
  what,
  onFile,
  children,
  className = "",
}: {
  endings: string[];
  what: string;
  onFile: (f: File) => void;
  children: ReactNode;
  className?: string;
}) {
  const [over, setOver] = useState(false);
  const depth = useRef(0);
  const files = (e: React.DragEvent) => e.dataTransfer.types.includes("Files");
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: files come by a button as well
    <div
      className={`relative ${className}`}
      onDragEnter={(e) => {
        if (!files(e)) return;
        depth.current += 1;
        setOver(true);
      }}
      onDragLeave={() => {
        depth.current = Math.max(0, depth.current - 1);
        if (depth.current === 0) setOver(false);
      }}
      onDragOver={(e) => files(e) && e.preventDefault()}
      onDrop={(e) => {
        if (!files(e)) return;
        e.preventDefault();
        depth.current = 0;
        setOver(false);
        const file = [...e.dataTransfer.files].find((f) => endings.includes(ending(f)));
        if (file) onFile(file);
        else toast.error(say("drop.other", { what }));
      }}
    >
      {children}
      {over && (
        <div className="pointer-events-none absolute inset-2 z-30 grid place-items-center rounded border-2 border-dashed border-act bg-ground/80 text-2xl">
          {say("drop.here", { what })}
        </div>
      )}
    </div>
  );
}
