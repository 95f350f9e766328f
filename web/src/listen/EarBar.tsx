import { Ear as EarIcon, EarOff, Minus, Plus } from "lucide-react";
import { useState } from "react";
import { count, say, told } from "../text/say";
import type { Listening } from "./useEar";

/** What the screen hears, beside what was planned; it may be put right. */
export function EarBar({ ear, planned, out }: { ear: Listening; planned: number; out: boolean }) {
  return (
    <div
      className="flex min-h-11 flex-wrap items-center gap-1.5 text-[clamp(15px,2.5vmin,24px)]"
      data-testid="ear"
      data-on={ear.on}
    >
      <button type="button" className="press min-h-11 !px-2.5" aria-pressed={ear.on} onClick={ear.toggle}>
        {ear.on ? <EarIcon size={18} aria-hidden /> : <EarOff size={18} aria-hidden />}
        {say(ear.on ? "ear.listens" : "ear.listen")}
      </button>
      {ear.deaf && (
        <span role="alert" className="text-[#d9b65c]">
          {told(`ear.deaf.${ear.deaf}`)}
        </span>
      )}
      {ear.on && (
        <>
          {out && ear.known && (
            <>
              <span data-testid="ear-blows" data-blows={ear.blows}>
                {say("ear.heard", { n: ear.blows, of: planned })}
              </span>
              <button
                type="button"
                className="press min-h-11 !px-2.5"
                aria-label={say("ear.fewer")}
                onClick={() => ear.right(-1)}
              >
                <Minus size={18} aria-hidden />
              </button>
              <button
                type="button"
                className="press min-h-11 !px-2.5"
                aria-label={say("ear.more")}
                onClick={() => ear.right(1)}
              >
                <Plus size={18} aria-hidden />
              </button>
              {ear.paused && <span className="text-[#9ba39f]">{say("ear.paused")}</span>}
            </>
          )}
          {!ear.known && out && <Teach ear={ear} />}
          {!ear.known && !out && <span className="text-[#9ba39f]">{say("ear.unknown")}</span>}
          <button type="button" className="press min-h-11 !px-2.5" aria-pressed={ear.ends} onClick={ear.toggleEnds}>
            {say("ear.ends")}
          </button>
          {ear.known && (
            <button type="button" className="press min-h-11 !px-2.5" onClick={ear.forget}>
              {say("ear.forget")}
            </button>
          )}
        </>
      )}
      {!ear.on && !ear.deaf && <span className="text-[#9ba39f] max-lg:hidden">{say("ear.hint")}</span>}
    </div>
  );
}

/** On an anvil that it does not know it counts nothing: the smith says how many blows the step was. */
function Teach({ ear }: { ear: Listening }) {
  const [off, setOff] = useState(0);
  const blows = Math.max(0, ear.unsure + off);
  return (
    <span className="flex flex-wrap items-center gap-1.5" data-testid="ear-learns" data-unsure={ear.unsure}>
      <span className="text-[#9ba39f]">{say("ear.teach")}</span>
      <button
        type="button"
        className="press min-h-11 !px-2.5"
        aria-label={say("ear.fewer")}
        onClick={() => setOff(off - 1)}
      >
        <Minus size={18} aria-hidden />
      </button>
      <span>{blows}</span>
      <button
        type="button"
        className="press min-h-11 !px-2.5"
        aria-label={say("ear.more")}
        onClick={() => setOff(off + 1)}
      >
        <Plus size={18} aria-hidden />
      </button>
      <button type="button" className="press min-h-11 !px-2.5" onClick={() => ear.teach(blows)}>
        {count("ear.itWas", blows)}
      </button>
      {ear.tooFew && (
        <span role="alert" className="text-[#d9b65c]">
          {say("ear.tooFew")}
        </span>
      )}
    </span>
  );
}
