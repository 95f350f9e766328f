import { ChevronRight } from "lucide-react";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { Term } from "./Term";

interface Props {
  title: string;
  term?: string;
  children: ReactNode;
  /** Folded away until it is opened, under this name; what is seldom set stands back. */
  fold?: string;
  /** What is set within, in a few words, while it is folded. */
  brief?: string;
}

/** Fields that belong together, under a line with their name. */
export function Group({ title, term, children, fold, brief }: Props) {
  if (fold)
    return (
      <Folded name={fold} title={title} term={term} brief={brief}>
        {children}
      </Folded>
    );
  return (
    <fieldset>
      <legend className="narrow mb-1.5 w-full border-b border-line text-lg">
        {term ? <Term code={term}>{title}</Term> : title}
      </legend>
      <div className="grid grid-cols-2 gap-x-3 gap-y-2">{children}</div>
    </fieldset>
  );
}

const kept = (name: string) => `coldember.open.${name}`;

/** Stays as it was left; opens by itself where something within is wrong. */
function Folded({ name, title, term, brief, children }: { name: string } & Omit<Props, "fold">) {
  const box = useRef<HTMLDetailsElement>(null);
  const [open, setOpen] = useState(() => localStorage.getItem(kept(name)) === "1");
  useEffect(() => {
    const el = box.current;
    if (!el) return;
    const wrong = () => el.querySelector("[aria-invalid=true]") && setOpen(true);
    wrong();
    const seen = new MutationObserver(wrong);
    seen.observe(el, { subtree: true, childList: true, attributeFilter: ["aria-invalid"] });
    return () => seen.disconnect();
  }, []);
  return (
    <details
      ref={box}
      open={open}
      data-fold={name}
      onToggle={(e) => {
        setOpen(e.currentTarget.open);
        localStorage.setItem(kept(name), e.currentTarget.open ? "1" : "0");
      }}
    >
      <summary className="flex min-h-8 cursor-pointer items-center gap-2 border-b border-line">
        <ChevronRight size={16} aria-hidden className={open ? "rotate-90" : ""} />
        <span className="narrow text-lg">{title}</span>
        {!open && brief && <span className="min-w-0 flex-1 truncate text-right text-sm text-quiet">{brief}</span>}
      </summary>
      <fieldset className="pt-2">
        <legend className="sr-only">{title}</legend>
        {term && (
          <p className="mb-1.5 text-sm">
            <Term code={term}>{title}</Term>
          </p>
        )}
        <div className="grid grid-cols-2 gap-x-3 gap-y-2">{children}</div>
      </fieldset>
    </details>
  );
}
