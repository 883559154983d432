/** A window to work in, over the page. */
import { Dialog } from "radix-ui";
import type { ReactNode } from "react";
import { SHEET, VEIL } from "./veil";

export function Window({
  title,
  open,
  onOpen,
  children,
}: {
  title: string;
  open: boolean;
  onOpen(open: boolean): void;
  children: ReactNode;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpen}>
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
    </Dialog.Root>
  );
}
