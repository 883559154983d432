/** A button that asks for a file. The same file can be chosen again. */
import { useRef, type ReactNode } from "react";

export function FileButton({
  label,
  accept,
  className = "btn",
  onFile,
  children,
}: {
  /** What the file is, for who does not see the button. */
  label: string;
  accept: string;
  className?: string;
  onFile(file: File): void;
  children: ReactNode;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <button type="button" className={className} onClick={() => input.current?.click()}>
        {children}
      </button>
      <input
        ref={input}
        type="file"
        accept={accept}
        className="visually-hidden"
        tabIndex={-1}
        aria-label={label}
        onChange={(e) => {
          const chosen = e.target.files?.[0];
          e.target.value = "";
          if (chosen) onFile(chosen);
        }}
      />
    </>
  );
}
