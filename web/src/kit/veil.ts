/** How what opens over the page looks. */
export const VEIL = "fixed inset-0 z-40 bg-black/40";
export const SHEET =
  "fixed left-1/2 top-1/2 z-50 max-h-[90dvh] w-[min(34rem,94vw)] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-2xl bg-worktop p-6 text-ink";
