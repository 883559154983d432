/** The versions of the formula: each saved edit with what changed, and the way back to any of them. */
import { Why } from "../../kit/Fold";
import { at } from "../../api/base";
import { useState } from "react";
import { useChangeFormula, useChangeJob, useIngredients, useVersions } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { dateClock, localTime } from "../../drawing/time";
import { Fault, otherFault } from "../../kit/Fault";
import { StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { KeptVersion, useJobFormula } from "./Dough";
import { DoughNav } from "./DoughNav";

export function Versions() {
  const { job, dim } = useJobContext();
  const format = useFormat();
  const formula = useJobFormula();
  const versions = useVersions(job.formula_id);
  const change = useChangeFormula(job.formula_id);
  const changeJob = useChangeJob(job.id);
  const [shown, setShown] = useState<number>();
  const ingredients = useIngredients();
  const nameOf = (key: string) =>
    ingredients.data?.find((i) => i.key === key)?.name.toLowerCase() ?? key.replaceAll("-", " ");
  const all = versions.data ?? [];
  const newest = all[0]?.number;
  const kept = job.formula_version ?? newest;
  return (
    <>
      <Work dim={dim}>
        <StationHead
          title={`Versions of ${formula?.name ?? "the recipe"}`}
          sub={versions.isPending ? undefined : all.length === 1 ? "as first saved" : `${all.length} of them`}
        >
          {(["text", "json-ld", "csv", "json"] as const).map((as) => (
            <a key={as} className="btn btn-small" href={at(`/api/formulas/${job.formula_id}/as/${as}`)}>
              {{ text: "Text", "json-ld": "Recipe data", csv: "Spreadsheet (CSV)", json: "Recipe file" }[as]}
            </a>
          ))}
        </StationHead>
        <DoughNav jobId={job.id} />
        <KeptVersion />
        <ol className="space-y-3">
          {all.map((v) => (
            <li key={v.number} className="rounded-xl border border-rule bg-raised p-4">
              <div className="flex flex-wrap items-center justify-between gap-2">
                <h3 className="text-lg">
                  Version {v.number}
                  <span className="ml-2 font-sans text-fine font-normal text-soft">
                    {dateClock(localTime(v.saved_at))}
                  </span>
                  {v.number === kept ? (
                    <span className="ml-2 rounded-full bg-pale px-2 py-0.5 font-sans text-fine font-semibold text-on-pale">
                      this job
                    </span>
                  ) : null}
                </h3>
                <div className="flex flex-wrap gap-2">
                  <button
                    type="button"
                    className="btn btn-small btn-quiet"
                    aria-expanded={shown === v.number}
                    onClick={() => setShown(shown === v.number ? undefined : v.number)}
                  >
                    {shown === v.number ? "Less" : "Full recipe"}
                  </button>
                  {v.number === newest ? null : (
                    <button
                      type="button"
                      className="btn btn-small"
                      onClick={() => change.mutate(() => ({ name: v.name, lines: v.lines }))}
                    >
                      Use this version again
                    </button>
                  )}
                  {v.number === kept ? null : (
                    <button
                      type="button"
                      className="btn btn-small"
                      onClick={() =>
                        changeJob.mutate({ formula_version: v.number === newest ? null : v.number })
                      }
                    >
                      Use in this job
                    </button>
                  )}
                </div>
              </div>
              {v.renamed_from ? <p className="mt-1">Renamed from {v.renamed_from}.</p> : null}
              {v.changes.length > 0 ? (
                <ul className="mt-2 flex flex-wrap gap-x-6 gap-y-1">
                  {v.changes.map((c) => (
                    <li key={c.ingredient}>
                      <span className="text-soft">{c.name}</span>{" "}
                      <span className="num">
                        {c.before_g === 0 ? "new" : format.mass(c.before_g)} →{" "}
                        {c.after_g === 0 ? "out" : format.mass(c.after_g)}
                      </span>
                    </li>
                  ))}
                </ul>
              ) : v.renamed_from ? null : (
                <p className="mt-1 text-soft">
                  {v.number === 1 ? "First version." : "Notes or order changed."}
                </p>
              )}
              {shown === v.number ? (
                <p className="mt-2 text-fine text-soft">
                  {v.lines.map((l) => `${nameOf(l.ingredient)} ${format.mass(l.grams)}`).join(", ")}
                </p>
              ) : null}
            </li>
          ))}
        </ol>
        <Fault
          text={
            otherFault(versions.error, []) ?? otherFault(change.error, []) ?? otherFault(changeJob.error, [])
          }
        />
      </Work>
      <TicketBox>
        <Why
          name="versions"
          part
          title="How versions work"
          items={[
            "Every saved change is a version, from any job.",
            "A job uses the newest until you record a bake, from the day before it’s due. Then its version and forecast stay.",
          ]}
        />
      </TicketBox>
    </>
  );
}
