import { X } from "lucide-react";
import { Dialog } from "radix-ui";
import { type ReactNode, useRef } from "react";
import { say } from "../text/say";

/** A sheet laid over the bench. */
export function Sheet({
  open,
  onClose,
  title,
  children,
  wide,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  children: ReactNode;
  wide?: boolean;
}) {
  const from = useRef<Element | null>(null);
  return (
    <Dialog.Root open={open} onOpenChange={(o) => !o && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/60" />
        <Dialog.Content
          aria-describedby={undefined}
          onOpenAutoFocus={(e) => {
            from.current = document.activeElement;
            const sheet = e.currentTarget as HTMLElement;
            const first =
              sheet.querySelector<HTMLElement>("[data-first]") ??
              sheet.querySelector<HTMLElement>("input:checked, input, [role=combobox]");
            if (!first) return;
            e.preventDefault();
            first.focus();
          }}
          onCloseAutoFocus={(e) => {
            // back to where the hand was, or to the page where that is gone
            e.preventDefault();
            const was = from.current;
            const there = was instanceof HTMLElement && was !== document.body && was.isConnected;
            (there ? was : document.querySelector<HTMLElement>("main"))?.focus({ preventScroll: true });
          }}
          className={`fixed left-1/2 top-1/2 z-50 max-h-[92vh] w-[94vw] ${wide ? "max-w-4xl" : "max-w-lg"} -translate-x-1/2 -translate-y-1/2 overflow-y-auto rounded border border-line bg-raised p-5`}
        >
          <div className="mb-4 flex items-start justify-between gap-4">
            <Dialog.Title className="text-2xl">{title}</Dialog.Title>
            <Dialog.Close className="press press-plain" aria-label={say("ui.close")}>
              <X size={18} aria-hidden />
            </Dialog.Close>
          </div>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
