/** Pictures, files and paper of a view, behind one button. */
import { useId, type ReactNode } from "react";
import { useMenu } from "./menu";

export function SaveMenu({ children }: { children: ReactNode }) {
  const id = useId();
  const { open, whole, button, toggle, close } = useMenu();
  return (
    <div ref={whole} className="no-print relative">
      <button
        ref={button}
        type="button"
        className="btn btn-small"
        aria-expanded={open}
        aria-controls={id}
        onClick={toggle}
      >
        Save or print
      </button>
      {/* Whatever is chosen closes it; the button that was pressed has done its work by then. */}
      <div id={id} className={open ? "save-menu" : "hidden"} onClickCapture={() => setTimeout(close)}>
        {children}
      </div>
    </div>
  );
}
