/** The two columns of a quick bench: what is known, and the answer. On a phone the answer stands first. */
export const COLUMNS =
  "grid h-full grid-cols-[minmax(0,1fr)_588px] max-[1100px]:grid-cols-[minmax(0,1fr)_500px] max-[800px]:flex max-[800px]:flex-col max-[800px]:overflow-auto";
export const KNOWN =
  "flex min-h-0 flex-col gap-3 overflow-auto p-5 max-[800px]:order-2 max-[800px]:shrink-0 max-[800px]:overflow-visible max-[800px]:pb-28";
export const ANSWER =
  "flex min-h-0 flex-col gap-2 overflow-auto border-l-2 border-ink bg-plate px-5 pt-4 pb-3 max-[800px]:shrink-0 max-[800px]:overflow-visible max-[800px]:border-l-0";
