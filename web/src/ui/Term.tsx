import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import { has, told } from "../text/say";

/** A word of the trade that opens a sentence about itself. */
export function Term({ code, children, drawing }: { code: string; children: ReactNode; drawing?: ReactNode }) {
  if (!has(`term.${code}`)) return <>{children}</>;
  return (
    <Popover.Root>
      <Popover.Trigger className="underline decoration-dotted decoration-1 underline-offset-4 hover:text-act">
        {children}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          collisionPadding={12}
          className="z-50 max-w-80 rounded border border-line bg-raised p-3 text-chalk shadow-lg"
        >
          {drawing}
          <p>{told(`term.${code}`)}</p>
          <Popover.Arrow className="fill-line" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
