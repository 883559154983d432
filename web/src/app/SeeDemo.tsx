/** The way to the demo bakery, where this is none itself. */
import { useOpenDemo } from "../api/begin";
import { useKitchen } from "../api/queries";
import { Fault, otherFault } from "../kit/Fault";

export function SeeDemo({ children }: { children: string }) {
  const kitchen = useKitchen();
  const demo = useOpenDemo();
  if (!kitchen.data || kitchen.data.made_up) return null;
  return (
    <>
      <button type="button" className="btn btn-quiet" disabled={demo.isPending} onClick={() => demo.mutate()}>
        {children}
      </button>
      <Fault text={otherFault(demo.error, [])} />
    </>
  );
}
