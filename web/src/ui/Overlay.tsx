import { Dialog } from "radix-ui";
import type { ReactNode } from "react";

/** The one overlay: a plate over the page, closed with Escape or its button. */
export function Overlay({
  title,
  children,
  wide,
}: {
  title: string;
  children: ReactNode;
  wide?: boolean | "most";
}) {
  return (
    <Dialog.Portal>
      <Dialog.Overlay className="fixed inset-0 bg-black/50" />
      <Dialog.Content
        aria-describedby={undefined}
        className={`fixed top-1/2 left-1/2 max-h-[88vh] w-[92vw] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded border-2 border-ink bg-plate p-6 shadow-xl ${wide === "most" ? "max-w-[960px]" : wide ? "max-w-[760px]" : "max-w-[480px]"}`}
      >
        <div className="mb-4 flex items-start justify-between gap-4">
          <Dialog.Title className="text-[26px]">{title}</Dialog.Title>
          <Dialog.Close className="btn">Close</Dialog.Close>
        </div>
        {children}
      </Dialog.Content>
    </Dialog.Portal>
  );
}
