/** What opens over the page: a window to work in, and a question that waits for its answer. */
import { AlertDialog, Dialog } from "radix-ui";
import type { ReactNode } from "react";

const VEIL = "fixed inset-0 z-40 bg-black/40";
const SHEET = "fixed left-1/2 top-1/2 z-50 max-h-[90dvh] w-[min(34rem,94vw)] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-2xl bg-worktop p-6 text-ink";

/** Within a `Dialog.Root`. */
export function Window({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Dialog.Portal>
      <Dialog.Overlay className={VEIL} />
      <Dialog.Content aria-describedby={undefined} className={SHEET}>
        <Dialog.Title className="h-station mb-4">{title}</Dialog.Title>
        {children}
        <Dialog.Close className="btn btn-quiet absolute right-3 top-3" aria-label="Close">
          ×
        </Dialog.Close>
      </Dialog.Content>
    </Dialog.Portal>
  );
}

interface QuestionProps {
  open: boolean;
  onOpenChange?: (open: boolean) => void;
  title: string;
  /** What it is about, read out with the title. */
  about: ReactNode;
  children?: ReactNode;
  /** To go on, and what is done then. */
  yes: { label: string; disabled?: boolean; act(): void };
  /** To leave all as it is. */
  no: { label: string; act?(): void };
  /** Which of the two the eye finds first. */
  first?: "yes" | "no";
}

/** A question that has to be answered before anything else. */
export function Question({ open, onOpenChange, title, about, children, yes, no, first = "yes" }: QuestionProps) {
  const [goOn, stay] = [
    <AlertDialog.Action key="yes" className={first === "yes" ? "btn btn-main" : "btn"} disabled={yes.disabled} onClick={yes.act}>{yes.label}</AlertDialog.Action>,
    <AlertDialog.Cancel key="no" className={first === "no" ? "btn btn-main" : "btn"} onClick={no.act}>{no.label}</AlertDialog.Cancel>,
  ];
  return (
    <AlertDialog.Root open={open} {...(onOpenChange ? { onOpenChange } : {})}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className={VEIL} />
        <AlertDialog.Content className={SHEET}>
          <AlertDialog.Title className="h-station mb-2">{title}</AlertDialog.Title>
          <AlertDialog.Description asChild>
            <div className="mb-4 text-lg">{about}</div>
          </AlertDialog.Description>
          {children}
          <div className="mt-5 flex flex-wrap gap-2">{first === "yes" ? [goOn, stay] : [stay, goOn]}</div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
