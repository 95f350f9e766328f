import { ChevronDown, Printer, Scissors, Share2 } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { Link } from "react-router";
import { say } from "../text/say";
import { over } from "../ui/over";

/** How an entry of a menu looks. */
export const menuItem =
  "flex cursor-pointer items-center gap-2 rounded px-3 py-2 outline-none data-[highlighted]:bg-plate data-[highlighted]:text-act";

const papers = [
  ["card", "card.pdf", "print.card"],
  ["bench", "heats.pdf", "print.bench"],
  ["fittings", "fittings.pdf", "finish.sheet"],
  ["customer", "customer.pdf", "finish.customerSheet"],
  ["template", "export/pdf", "print.template"],
] as const;

/** Everything that is taken to the fire, the bench and the saw on paper. */
export function PrintMenu({ id }: { id: string }) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className="press gap-1.5" data-testid="print">
        <Printer size={16} aria-hidden /> <span className="max-sm:sr-only">{say("print.title")}</span>
        <ChevronDown size={14} aria-hidden className="max-sm:hidden" />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal container={over()}>
        <DropdownMenu.Content align="end" className="z-50 min-w-64 rounded border border-line bg-raised p-1 shadow-lg">
          {papers.map(([name, path, code]) => (
            <DropdownMenu.Item key={name} className={menuItem} asChild>
              <a href={`/api/v1/pieces/${id}/${path}`} target="_blank" rel="noreferrer" data-print={name}>
                <Printer size={16} aria-hidden />
                <span className="mr-auto">{say(code)}</span>
                {name === "card" && <kbd className="narrow text-quiet">P</kbd>}
              </a>
            </DropdownMenu.Item>
          ))}
          <DropdownMenu.Item className={menuItem} asChild>
            <a href={`/api/v1/pieces/${id}/share.zip`} download data-print="share">
              <Share2 size={16} aria-hidden /> {say("print.share")}
            </a>
          </DropdownMenu.Item>
          <DropdownMenu.Item className={menuItem} asChild>
            <Link to={`/cuts?piece=${id}`} data-print="cuts">
              <Scissors size={16} aria-hidden /> {say("print.cuts")}
            </Link>
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
