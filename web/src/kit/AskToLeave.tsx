/** Asks before work that is not kept is left behind: another page, another view, or the window shut. */
import { AlertDialog } from "radix-ui";
import { useEffect } from "react";
import { useBlocker } from "react-router";

export function AskToLeave({ when, what }: { when: boolean; what: string }) {
  const blocker = useBlocker(({ currentLocation, nextLocation }) => when && currentLocation.pathname !== nextLocation.pathname);
  useEffect(() => {
    if (!when) return undefined;
    const ask = (e: BeforeUnloadEvent) => e.preventDefault();
    addEventListener("beforeunload", ask);
    return () => removeEventListener("beforeunload", ask);
  }, [when]);
  return (
    <AlertDialog.Root open={blocker.state === "blocked"}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <AlertDialog.Content className="fixed left-1/2 top-1/2 z-50 w-[min(28rem,94vw)] -translate-x-1/2 -translate-y-1/2 rounded-2xl bg-worktop p-6 text-ink">
          <AlertDialog.Title className="h-station mb-2">Leave without keeping it?</AlertDialog.Title>
          <AlertDialog.Description className="mb-4 text-lg">{what}</AlertDialog.Description>
          <div className="flex flex-wrap gap-2">
            <AlertDialog.Cancel asChild>
              <button type="button" className="btn btn-main" onClick={() => blocker.reset?.()}>
                Stay here
              </button>
            </AlertDialog.Cancel>
            <AlertDialog.Action asChild>
              <button type="button" className="btn" onClick={() => blocker.proceed?.()}>
                Leave it
              </button>
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
