/** What the kitchen bakes in. A covered pot on a burner is there only after its cautions were read. */
import { textOf } from "../drawing/sentence";
import { Says } from "../kit/Says";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, settled, type Kitchen } from "../api/client";
import { useChangeKitchen } from "../api/queries";
import { Choice } from "../kit/Choice";
import { Fault, otherFault } from "../kit/Fault";
import { Question } from "../kit/Asks";

export function CoverPot({ kitchen }: { kitchen: Kitchen }) {
  const change = useChangeKitchen();
  const [asking, setAsking] = useState(false);
  const cautions = useQuery({
    queryKey: ["pot-cautions"],
    queryFn: () => settled(api.GET("/api/kitchen/pot-cautions")),
    staleTime: Infinity,
  });
  return (
    <>
      <Choice
        label="Baked in"
        value={kitchen.cover_pot ? "pot" : kitchen.small_oven ? "small" : "oven"}
        options={[
          { value: "oven", label: "An oven" },
          { value: "small", label: "A toaster oven or other small oven" },
          { value: "pot", label: "A covered pot on a burner" },
        ]}
        onChange={(v) =>
          v === "pot" ? setAsking(true) : change.mutate({ cover_pot: false, small_oven: v === "small" })
        }
      />
      <Fault text={otherFault(change.error, [])} />
      {kitchen.cover_pot ? (
        <p className="caution mt-3">
          No forecast for a pot. Jobs allow about twice the oven time, one small tray at a time. Set the tray
          size to what fits on its rack.
        </p>
      ) : null}
      {kitchen.small_oven && !kitchen.cover_pot ? (
        <p className="mt-3 text-fine text-soft">Each job’s oven card lists what to watch for.</p>
      ) : null}
      <Question
        open={asking}
        onOpenChange={setAsking}
        title="Baking in a pot instead of an oven"
        about="It can be done, but people get burned. Read this first. Local open-flame rules and the pot’s own manual come first."
        yes={{
          label: "I’ve read this: use a pot",
          disabled: !cautions.data,
          act: () => change.mutate({ cover_pot: true }),
        }}
        no={{ label: "Use an oven" }}
      >
        <ul className="list-disc space-y-2 pl-5">
          {(cautions.data ?? []).map((c) => (
            <li key={textOf(c)}>
              <Says of={c} />
            </li>
          ))}
        </ul>
      </Question>
    </>
  );
}
