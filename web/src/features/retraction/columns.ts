/** The two columns of a quick bench: what is known, and the answer. On a phone the answer stands first. */
export const COLUMNS =
  "grid h-full grid-cols-[minmax(0,1fr)_588px] max-[1100px]:grid-cols-[minmax(0,1fr)_500px] max-[760px]:flex max-[760px]:flex-col max-[760px]:overflow-auto";
export const KNOWN =
  "flex min-h-0 flex-col gap-3 overflow-auto p-5 max-[760px]:order-2 max-[760px]:shrink-0 max-[760px]:overflow-visible max-[760px]:pb-28";
export const ANSWER =
  "flex min-h-0 flex-col gap-2 overflow-auto border-l-2 border-ink bg-plate px-5 pt-4 pb-3 max-[760px]:shrink-0 max-[760px]:overflow-visible max-[760px]:border-l-0";
