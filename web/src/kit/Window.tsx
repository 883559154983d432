/** What opens over the page: a window to work in, and a question that waits for its answer. */
import { Dialog } from "radix-ui";
import { lazy, Suspense, type ReactNode } from "react";
import type { QuestionProps } from "./Question";
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

const Asked = lazy(async () => ({ default: (await import("./Question")).Question }));

/** A question that has to be answered before anything else; its script comes when one is asked first, or as soon as the browser is idle. */
export function Question(props: QuestionProps) {
  return props.open ? (
    <Suspense fallback={null}>
      <Asked {...props} />
    </Suspense>
  ) : null;
}
