import { Dialog } from "radix-ui";
import type { ReactNode } from "react";

/** The one overlay: a plate over the page, closed with Escape or its button. */
export function Overlay({
  title,
  children,
  wide,
  beside,
  stays = false,
}: {
  title: string;
  children: ReactNode;
  wide?: boolean | "most";
  /** What stands in the title's own row. */
  beside?: ReactNode;
  /** True of one that only its own buttons close. */
  stays?: boolean;
}) {
  return (
    <Dialog.Portal>
      <Dialog.Overlay className="fixed inset-0 z-20 bg-black/50" />
      <Dialog.Content
        aria-describedby={undefined}
        className={`fixed top-1/2 z-20 left-1/2 max-h-[88vh] w-[92vw] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded border-2 border-ink bg-plate p-6 shadow-xl ${wide === "most" ? "max-h-[96vh] w-[96vw] max-w-[1240px] !p-3" : wide ? "max-w-[760px]" : "max-w-[480px]"}`}
      >
        <div className={`${wide === "most" ? "mb-2" : "mb-4"} flex items-start justify-between gap-4`}>
          <Dialog.Title className="text-[26px]">{title}</Dialog.Title>
          {beside}
          {!stays && <Dialog.Close className="btn">Close</Dialog.Close>}
        </div>
        {children}
      </Dialog.Content>
    </Dialog.Portal>
  );
}
