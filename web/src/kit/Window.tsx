/** What opens over the page: a window to work in, and a question that waits for its answer. */
import { Dialog } from "radix-ui";
import { lazy, Suspense, type ReactNode } from "react";
import { SHEET, VEIL } from "./veil";

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

export interface QuestionProps {
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

const Asked = lazy(async () => ({ default: (await import("./Question")).Question }));

/** A question that has to be answered before anything else; its script comes when one is asked first, or as soon as the browser is idle. */
export function Question(props: QuestionProps) {
  return props.open ? (
    <Suspense fallback={null}>
      <Asked {...props} />
    </Suspense>
  ) : null;
}
