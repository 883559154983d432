/** Where a view has nothing to show yet: that it is being asked for, or why it is not to be had. */
import { Fault, otherFault } from "./Fault";

interface Asked {
  error: unknown;
  failureCount: number;
}

export function Unread({ of }: { of: readonly Asked[] }) {
  const error = of.find((q) => q.error)?.error;
  if (error) {
    return (
      <div className="p-5">
        <Fault text={otherFault(error, []) ?? "Can’t read the server’s answer. Reload the page."} />
      </div>
    );
  }
  return (
    <p className="p-5 text-soft" role="status">
      {of.some((q) => q.failureCount > 0) ? "No answer from the server. Trying again." : "One moment…"}
    </p>
  );
}
