/** Opens the form for a further cutter, which is loaded when it is first wanted and then keeps what was typed. */
import { Dialog } from "radix-ui";
import { lazy, Suspense, useState } from "react";
import type { Cutter } from "../../api/client";

export const cutterForm = () => import("./NewCutterForm");
const NewCutterForm = lazy(async () => ({ default: (await cutterForm()).NewCutterForm }));

export function AddCutter({ onAdded }: { onAdded(cutter: Cutter): void }) {
  const [open, setOpen] = useState(false);
  const [wanted, setWanted] = useState(false);
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(next) => {
        setOpen(next);
        setWanted(true);
      }}
    >
      <Dialog.Trigger className="btn">Add a cutter</Dialog.Trigger>
      {wanted ? (
        <Suspense>
          <NewCutterForm
            onAdded={(cutter) => {
              setOpen(false);
              onAdded(cutter);
            }}
          />
        </Suspense>
      ) : null}
    </Dialog.Root>
  );
}
