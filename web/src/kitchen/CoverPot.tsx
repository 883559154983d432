/** What the kitchen bakes in. A covered pot on a burner is there only after its cautions were read. */
import { AlertDialog } from "radix-ui";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, settled, type Kitchen } from "../api/client";
import { useChangeKitchen } from "../api/queries";
import { Choice } from "../kit/Choice";
import { Fault, otherFault } from "../kit/Fault";

export function CoverPot({ kitchen }: { kitchen: Kitchen }) {
  const change = useChangeKitchen();
  const [asking, setAsking] = useState(false);
  const cautions = useQuery({ queryKey: ["pot-cautions"], queryFn: () => settled(api.GET("/api/kitchen/pot-cautions")), staleTime: Infinity });
  return (
    <>
      <Choice
        label="Baked in"
        value={kitchen.cover_pot ? "pot" : "oven"}
        options={[{ value: "oven", label: "An oven" }, { value: "pot", label: "A covered pot on a burner" }]}
        onChange={(v) => (v === "pot" ? setAsking(true) : change.mutate({ cover_pot: false }))}
      />
      <Fault text={otherFault(change.error, [])} />
      {kitchen.cover_pot ? <p className="caution mt-3">Nothing is forecast of a pot: jobs are planned with about twice an oven’s time, one small tray after the other. Set the tray’s size to what lies on its rack.</p> : null}
      <AlertDialog.Root open={asking} onOpenChange={setAsking}>
        <AlertDialog.Portal>
          <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
          <AlertDialog.Content className="fixed left-1/2 top-1/2 z-50 max-h-[90dvh] w-[min(34rem,94vw)] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-2xl bg-worktop p-6 text-ink">
            <AlertDialog.Title className="h-station mb-3">A pot in place of an oven</AlertDialog.Title>
            <AlertDialog.Description className="mb-3">It can be done, and people are burnt by it. Read this first; local rules for open flames and the pot’s own leaflet come before it.</AlertDialog.Description>
            <ul className="list-disc space-y-2 pl-5">
              {(cautions.data ?? []).map((c) => (
                <li key={c}>{c}</li>
              ))}
            </ul>
            <div className="mt-5 flex flex-wrap gap-3">
              <AlertDialog.Action className="btn btn-main" disabled={!cautions.data} onClick={() => change.mutate({ cover_pot: true })}>I have read it: plan with a pot</AlertDialog.Action>
              <AlertDialog.Cancel className="btn">Stay with an oven</AlertDialog.Cancel>
            </div>
          </AlertDialog.Content>
        </AlertDialog.Portal>
      </AlertDialog.Root>
    </>
  );
}
