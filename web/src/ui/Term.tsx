import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import { Link } from "react-router";
import { has, say, told } from "../text/say";
import { WordDrawing } from "../words/WordDrawing";

/** A word of the trade that opens a sentence about itself. */
export function Term({ code, children }: { code: string; children: ReactNode }) {
  if (!has(`term.${code}`)) return <>{children}</>;
  return (
    <Popover.Root>
      <Popover.Trigger className="underline decoration-dotted decoration-1 underline-offset-4 hover:text-act">
        {children}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label={told(`term.${code}.name`)}
          sideOffset={6}
          collisionPadding={12}
          className="z-50 max-w-80 rounded border border-line bg-raised p-3 text-chalk shadow-lg"
        >
          <WordDrawing id={code} className="mb-2 h-[72px] w-36" />
          <p className="narrow text-lg">{told(`term.${code}.name`)}</p>
          <p>{told(`term.${code}`)}</p>
          <Link to={`/words/${code}`} className="mt-1.5 inline-block underline decoration-dotted underline-offset-4">
            {say("words.all")}
          </Link>
          <Popover.Arrow className="fill-line" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
