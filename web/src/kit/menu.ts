/** What opens under a button and closes again: by Escape, by a press elsewhere, and when what it belongs to changes. */
import { useEffect, useRef, useState } from "react";

export function useMenu(belongsTo = "") {
  const [openOn, setOpenOn] = useState<string>();
  const open = openOn === belongsTo;
  const whole = useRef<HTMLDivElement>(null);
  const button = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (!open) return;
    const close = () => setOpenOn(undefined);
    const key = (e: KeyboardEvent) => {
      if (e.key !== "Escape") return;
      close();
      button.current?.focus();
    };
    const press = (e: PointerEvent) => {
      if (e.target instanceof Node && !whole.current?.contains(e.target)) close();
    };
    addEventListener("keydown", key);
    addEventListener("pointerdown", press);
    return () => {
      removeEventListener("keydown", key);
      removeEventListener("pointerdown", press);
    };
  }, [open]);
  return {
    open,
    /** Around button and menu. */
    whole,
    button,
    toggle: () => setOpenOn(open ? undefined : belongsTo),
    close: () => setOpenOn(undefined),
  };
}
