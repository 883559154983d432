/** In the demo: what it is, the way home, and how to be rid of it. */
import { useRemoveDemo } from "../api/begin";
import { Fault, otherFault } from "../kit/Fault";

export function DemoBar() {
  const remove = useRemoveDemo();
  return (
    <aside
      className="no-print mb-2 flex flex-wrap items-center gap-x-3 rounded-xl bg-pale px-4 text-on-pale"
      aria-label="Demo"
    >
      <p className="flex-1 py-2">Demo bakery: everything here is made up and separate from yours.</p>
      <a href="/" className="btn btn-quiet btn-small">
        Go to my bakery
      </a>
      <button
        type="button"
        className="btn btn-quiet btn-small"
        disabled={remove.isPending}
        onClick={() => remove.mutate()}
      >
        Delete the demo
      </button>
      <Fault text={otherFault(remove.error, [])} />
    </aside>
  );
}
