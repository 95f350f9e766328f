import { Timer as Clock } from "lucide-react";
import { toast } from "sonner";
import { wakeSound } from "../anvil/sound";
import { type NewTimer, Refused } from "../api/client";
import { useTimerWork } from "../api/hooks";
import { say } from "../text/say";
import { print } from "../units/print";

/** Begins a timer of a piece, by the server's clock. */
export function TimerButton({ pieceId, kind, label, seconds }: NewTimer) {
  const work = useTimerWork();
  if (seconds < 1) return null;
  return (
    <button
      type="button"
      className="press min-h-11"
      data-start={kind}
      onClick={() => {
        wakeSound();
        work.start.mutate(
          { pieceId, kind, label, seconds },
          {
            onError: (e) => toast(e instanceof Refused ? e.problem.detail : say("ui.offline")),
          },
        );
      }}
    >
      <Clock size={15} aria-hidden /> {label} · {print.duration(seconds)}
    </button>
  );
}
