/** What the scraps of this job give with those of another, pressed together and rolled once. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useRef } from "react";
import { Link, useSearchParams } from "react-router";
import { api, settled } from "../../api/client";
import { useJobs } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { say, textOf } from "../../drawing/sentence";
import { number } from "../../drawing/units";
import { Amount } from "../../kit/Amount";
import { Fault, otherFault } from "../../kit/Fault";
import { Live } from "../../kit/Live";
import { SaveMenu } from "../../kit/SaveMenu";
import { SaveSvg } from "../../kit/SaveSvg";
import { Part, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { ShapeNav } from "./ShapeNav";
import { SheetDrawing } from "./SheetDrawing";

const ask = (id: number, query: { with: number; own_g?: number; other_g?: number }) =>
  settled(api.GET("/api/jobs/{id}/marbled", { params: { path: { id }, query } }));

export function MarbledView() {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const jobs = useJobs();
  const [search, setSearch] = useSearchParams();
  const picture = useRef<SVGSVGElement>(null);
  const others = (jobs.data ?? []).filter((j) => j.id !== job.id && j.formula_id !== job.formula_id);
  const other = others.find((j) => String(j.id) === search.get("with")) ?? others[0];
  const grams = (name: "own_g" | "other_g") =>
    search.get(name) === null ? {} : { [name]: Number(search.get(name)) };
  const query = { with: other?.id ?? 0, ...grams("own_g"), ...grams("other_g") };
  const asked = useQuery({
    queryKey: ["marbled", job.id, job.revision, query],
    queryFn: () => ask(job.id, query),
    enabled: other !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const found = asked.error ? undefined : asked.data;
  const put = async (more: Record<string, string>) => {
    const next: Record<string, string> = { ...Object.fromEntries(search), with: String(query.with), ...more };
    await ask(job.id, {
      with: query.with,
      ...(next.own_g ? { own_g: Number(next.own_g) } : {}),
      ...(next.other_g ? { other_g: Number(next.other_g) } : {}),
    });
    setSearch(next, { replace: true });
  };
  const roll = found
    ? {
        number: 0,
        sheets: 1,
        form: "oblong" as const,
        width_mm: found.width_mm,
        length_mm: found.length_mm,
        mass_g: found.mass_g,
        pieces: found.pieces,
        cut_g: found.piece_g * found.pieces,
        least_gap_mm: null,
        cuts: found.cuts,
        nested: false,
      }
    : undefined;
  return (
    <>
      <Work dim={dim || asked.isPlaceholderData}>
        <StationHead
          title="Marbled"
          sub={
            found
              ? `${format.mass(found.mass_g)} of two doughs, ${format.length(plan.shape.thickness_mm)} thick`
              : undefined
          }
        >
          <SaveMenu>
            <SaveSvg picture={picture} name={`${job.name} marbled`} />
          </SaveMenu>
        </StationHead>
        <ShapeNav jobId={job.id} />
        <Fault text={otherFault(asked.error, ["own_g", "other_g"])} />
        {others.length === 0 ? (
          <p className="max-w-xl text-lg">
            No job with another dough yet. <Link to="/new">Start one</Link> to marble its scraps with these.
          </p>
        ) : null}
        {roll && found && found.pieces > 0 ? (
          <SheetDrawing picture={picture} rolls={[roll]} cutter={plan.cutter} />
        ) : null}
        {found ? (
          <ol className="mt-4 max-w-xl list-decimal space-y-2 pl-6">
            {found.steps.map((s) => (
              <li key={textOf(s)}>{say(s, format)}</li>
            ))}
          </ol>
        ) : null}
      </Work>
      <TicketBox>
        <Part title="Marbled cookies">
          <p className="answer">
            <Live value={found ? String(found.pieces) : ""} />
          </p>
          {found ? (
            <p className="mt-1 text-soft">
              {found.pieces === 0
                ? "Not enough for one cookie."
                : `${format.mass(found.piece_g)} each, on top of this job’s ${job.pieces}.`}
            </p>
          ) : null}
          {found && found.pieces > 0 ? (
            <p className="say mt-2">
              Bake about {number(found.bake_about_min, 0)}&nbsp;min. Look at {number(found.look_after_min, 0)}
              .
            </p>
          ) : null}
        </Part>
        <Part title="Scraps to use">
          <label htmlFor="marbled-with" className="mb-1 block text-fine text-soft">
            This job’s, and from
          </label>
          <select
            id="marbled-with"
            className="field"
            value={other?.id ?? ""}
            onChange={(e) => setSearch({ with: e.target.value }, { replace: true })}
          >
            {others.map((j) => (
              <option key={j.id} value={j.id}>
                {j.name}
              </option>
            ))}
          </select>
          {found ? (
            <div className="mt-3 grid grid-cols-2 gap-3">
              <Amount
                label="This dough"
                kind="mass"
                step={10}
                value={Math.round(found.own_g)}
                field="own_g"
                onSave={(v) => put({ own_g: String(v) })}
              />
              <Amount
                label="Other dough"
                kind="mass"
                step={10}
                value={Math.round(found.other_g)}
                field="other_g"
                onSave={(v) => put({ other_g: String(v) })}
              />
            </div>
          ) : null}
          <p className="mt-2 text-fine text-soft">Starts with what cutting both leaves.</p>
        </Part>
        {found ? (
          <Part title="Sheet">
            <Rows>
              <Row name="Roll to">{`${format.length(Math.round(found.width_mm))} × ${format.length(Math.round(found.length_mm))}`}</Row>
              <Row name="Other dough">{`${number(found.other_percent, 0)}%`}</Row>
              <Row name="Scraps left">{format.mass(found.left_g)}</Row>
            </Rows>
            <p className="caution mt-3">{`Label the allergens of both doughs: ${found.allergens.join(", ")}.`}</p>
          </Part>
        ) : null}
      </TicketBox>
    </>
  );
}
