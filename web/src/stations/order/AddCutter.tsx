/** Opens the form for a further cutter, which is loaded when it is first wanted and then keeps what was typed. */
import { lazy, Suspense, useState } from "react";
import type { Cutter } from "../../api/client";

export const cutterForm = () => import("./NewCutterForm");
const NewCutterForm = lazy(async () => ({ default: (await cutterForm()).NewCutterForm }));

export function AddCutter({
  onAdded,
  label = "Add a cutter",
}: {
  onAdded(cutter: Cutter): void;
  label?: string;
}) {
  const [open, setOpen] = useState(false);
  const [wanted, setWanted] = useState(false);
  return (
    <>
      <button
        type="button"
        className="btn"
        aria-haspopup="dialog"
        aria-expanded={open}
        onClick={() => {
          setWanted(true);
          setOpen(true);
        }}
      >
        {label}
      </button>
      {wanted ? (
        <Suspense>
          <NewCutterForm
            open={open}
            onOpen={setOpen}
            onAdded={(cutter) => {
              setOpen(false);
              onAdded(cutter);
            }}
          />
        </Suspense>
      ) : null}
    </>
  );
}
