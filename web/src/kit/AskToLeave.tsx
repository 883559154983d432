/** Asks before work that is not kept is left behind: another page, another view, or the window shut. */
import { useEffect } from "react";
import { useBlocker } from "react-router";
import { Question } from "./Asks";

export function AskToLeave({ when, what }: { when: boolean; what: string }) {
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) => when && currentLocation.pathname !== nextLocation.pathname,
  );
  useEffect(() => {
    if (!when) return undefined;
    const ask = (e: BeforeUnloadEvent) => e.preventDefault();
    addEventListener("beforeunload", ask);
    return () => removeEventListener("beforeunload", ask);
  }, [when]);
  return (
    <Question
      open={blocker.state === "blocked"}
      title="Leave without saving?"
      about={what}
      first="no"
      yes={{ label: "Leave", act: () => blocker.proceed?.() }}
      no={{ label: "Stay", act: () => blocker.reset?.() }}
    />
  );
}
