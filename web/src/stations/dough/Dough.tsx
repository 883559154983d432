/** The dough station: its frame, and the first of its views, what the dough is and what goes on the scale. */
import { useRef } from "react";
import { Link, Outlet, useSearchParams } from "react-router";
import type { Formula } from "../../api/client";
import { useBeside, useChangeJob, useFormulas } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { NextStep } from "../../app/NextStep";
import { say, textOf } from "../../drawing/sentence";
import { number } from "../../drawing/units";
import { Fault, otherFault } from "../../kit/Fault";
import { Live } from "../../kit/Live";
import { SaveMenu } from "../../kit/SaveMenu";
import { SaveSvg } from "../../kit/SaveSvg";
import { Why } from "../../kit/Fold";
import { Cautions, Part, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { DoughNav } from "./DoughNav";
import { MakeUp } from "./MakeUp";
import { SchoolMap } from "./SchoolMap";
import { Traits } from "./Traits";
import { Weights } from "./Weights";

/** The formula of the job on the counter. */
export function useJobFormula(): Formula | undefined {
  const { job } = useJobContext();
  return useFormulas().data?.find((f) => f.id === job.formula_id);
}

export function DoughStation() {
  return <Outlet context={useJobContext()} />;
}

export function Dough() {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const formula = useJobFormula();
  const [search, setSearch] = useSearchParams();
  const beside = useBeside(job.formula_id, search.get("beside") ?? "", job.formula_version ?? null);
  const slabs = useRef<SVGSVGElement>(null);
  const map = useRef<SVGSVGElement>(null);
  const { dough } = plan;
  const b = beside.data;
  return (
    <>
      <Work dim={dim}>
        <StationHead
          title={formula?.name ?? "Dough"}
          sub={`1 : ${number(dough.ratio_sugar, 1, 1)} : ${number(dough.ratio_flour, 1, 1)} butter, sugar, flour`}
        >
          <SaveMenu>
            <SaveSvg picture={slabs} name={`${formula?.name ?? "dough"} make-up`} />
            <button type="button" className="btn btn-small" onClick={() => print()}>
              Print weights
            </button>
          </SaveMenu>
        </StationHead>
        <DoughNav jobId={job.id} />
        <Fault text={otherFault(beside.error, [])} />
        <KeptVersion />
        {b ? (
          <div className={`no-print mb-5 ${beside.isPlaceholderData ? "opacity-60" : ""}`}>
            <MakeUp picture={slabs} own={b.own} neighbour={b.neighbour} />
            <div className="mt-3 grid gap-x-6 gap-y-4 md:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)]">
              <div>
                <SchoolMap picture={map} beside={b} />
                <div className="mt-2 flex flex-wrap items-center gap-3">
                  <label className="flex min-w-0 flex-1 items-center gap-2">
                    <span className="text-fine text-soft">Compare with</span>
                    <select
                      className="field"
                      aria-label="Compare with"
                      value={search.get("beside") ?? ""}
                      onChange={(e) =>
                        setSearch(e.target.value ? { beside: e.target.value } : {}, { replace: true })
                      }
                    >
                      <option value="">Closest recipe</option>
                      {b.neighbours.map((n) => (
                        <option key={n.key} value={n.key}>
                          {n.name}
                        </option>
                      ))}
                    </select>
                  </label>
                  <SaveSvg picture={map} name={`${formula?.name ?? "dough"} among the schools`} />
                </div>
              </div>
              <div>
                <Traits beside={b} />
              </div>
            </div>
            <p className="mt-3">{say(b.own.school, format)}</p>
            <Why name="beside" title={`How it differs from ${b.neighbour.name}`} items={b.differences} />
          </div>
        ) : null}
        {formula ? <Weights formula={formula} dough={dough} /> : null}
      </Work>
      <DoughTicket />
    </>
  );
}

/** What the job keeps of its formula, where that is no longer the newest. */
export function KeptVersion() {
  const { job } = useJobContext();
  const formula = useJobFormula();
  const change = useChangeJob(job.id);
  if (change.error) return <Fault text={otherFault(change.error, [])} />;
  if (!formula || !job.formula_version || job.formula_version === formula.version) return null;
  return (
    <div className="say no-print mb-4 flex flex-wrap items-center justify-between gap-3">
      <p>
        Baked with version {job.formula_version}. The newest is {formula.version}.
      </p>
      <button
        type="button"
        className="btn btn-small"
        onClick={() => change.mutate({ formula_version: null })}
      >
        Use the newest
      </button>
    </div>
  );
}

function DoughTicket() {
  const { job, plan } = useJobContext();
  const format = useFormat();
  const { dough } = plan;
  return (
    <TicketBox>
      <Part title={dough.mixes === 1 ? "1 batch" : `${dough.mixes} equal batches`}>
        <p className="answer">
          <Live value={dough.mixes === 1 ? format.bigMass(dough.dough_g) : format.mass(dough.mix_g)} />
        </p>
        <p className="mb-3 mt-1 text-soft">
          {dough.mixes === 1 ? "of dough in all" : `each, ${format.bigMass(dough.dough_g)} in all`}
        </p>
        <p className="say">
          Out of the mixer at <strong>{format.temperature(dough.dough_c)}</strong>. Stop when it clears the
          bowl and a squeezed handful holds with nothing crumbling off.
        </p>
        <Link to={`/jobs/${job.id}/dough/mix`} className="btn btn-main mt-3 w-full">
          Open the mixing card
        </Link>
      </Part>
      {dough.parts.length > 1 ? (
        <Part title="Where the dough goes">
          <Rows>
            {dough.parts.map((p) => (
              <Row
                key={p.name}
                name={`${p.pieces} ${p.part_use === "freeze" ? "for the freezer" : `× ${p.name}`}`}
              >
                <Live value={format.bigMass(p.dough_g)} />
              </Row>
            ))}
          </Rows>
        </Part>
      ) : null}
      {dough.warnings.length > 0 ? (
        <Part title="Watch for">
          <ul className="space-y-2">
            {dough.warnings.map((w) => (
              <li key={textOf(w)} className="caution">
                {say(w, format)}
              </li>
            ))}
          </ul>
        </Part>
      ) : null}
      <Part title="Details">
        <Rows>
          <Row name="Butter : sugar : flour">
            <Live value={`1 : ${number(dough.ratio_sugar, 2, 2)} : ${number(dough.ratio_flour, 2, 2)}`} />
          </Row>
          <Row name="Density, with its air">
            <Live value={`${number(dough.density_kg_m3 / 1000, 3, 3)}\u00a0g/cm³`} />
          </Row>
          <Row name="Allergens">{dough.allergens.join(", ") || "none known"}</Row>
        </Rows>
        <Why name="dough" items={dough.reasons} />
        <Cautions items={plan.cautions} />
        <p className="caution mt-3">
          Add flour slowly: its dust harms your lungs. The allergen list is a draft. Local rules come first.
        </p>
      </Part>
      <NextStep station="dough" />
    </TicketBox>
  );
}
