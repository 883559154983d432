/** A log or bar of the dough: of its measures any three are typed and the others follow, drawn to scale with its cuts. */
import { Why } from "../../kit/Fold";
import { at } from "../../api/base";
import { useRef } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { askLog, useLog, type LogQuery } from "../../api/logs";
import { useChangeJob } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { duration } from "../../drawing/time";
import { number } from "../../drawing/units";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, otherFault } from "../../kit/Fault";
import { Live } from "../../kit/Live";
import { SaveMenu } from "../../kit/SaveMenu";
import { SaveSvg } from "../../kit/SaveSvg";
import { Part, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { LogDrawing, RulerStrip } from "./LogDrawing";
import { ShapeNav } from "./ShapeNav";
import { candidates, givenIn, MEASURES, type Given, type Measure } from "./given";

export const FORMS: readonly { value: LogQuery["form"]; label: string }[] = [
  { value: "round", label: "Round" },
  { value: "square", label: "Square" },
  { value: "oblong", label: "Oblong" },
  { value: "half_round", label: "Half-round" },
  { value: "wedge", label: "Wedge" },
];

const FIELDS: Record<Measure, { label: string; kind: "mass" | "length" | "count"; step: number }> = {
  mass_g: { label: "Dough weight", kind: "mass", step: 10 },
  length_mm: { label: "Length", kind: "length", step: 5 },
  width_mm: { label: "Width", kind: "length", step: 1 },
  height_mm: { label: "Height", kind: "length", step: 1 },
  slice_mm: { label: "Slice thickness", kind: "length", step: 0.5 },
  slices: { label: "Number of slices", kind: "count", step: 1 },
};

export function LogView() {
  const { job, dim } = useJobContext();
  const format = useFormat();
  const change = useChangeJob(job.id);
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();
  const picture = useRef<SVGSVGElement>(null);
  const strip = useRef<SVGSVGElement>(null);
  const form = FORMS.find((f) => f.value === search.get("form"))?.value ?? "round";
  const ratio = Number(search.get("high") ?? 0.6);
  const ends = search.get("ends") === "kept" ? "kept" : "trimmed";
  const asked = givenIn(search);
  const tall = form === "oblong" || form === "wedge";
  const query = (of: Given): LogQuery => ({
    form,
    ...(tall ? { height_to_width: ratio } : {}),
    ...(ends === "kept" ? { ends_kept: true } : {}),
    ...Object.fromEntries(of),
  });
  const found = useLog(job.id, query(asked));
  const log = found.error ? undefined : found.data;
  const given: Given =
    asked.length > 0 || !log
      ? asked
      : MEASURES.filter((m) => log.given.includes(m)).map((m) => [m, log[m]] as const);
  const put = (of: Given, more: Record<string, string> = {}) =>
    setSearch(
      {
        form,
        ...(tall ? { high: String(ratio) } : {}),
        ...(ends === "kept" ? { ends } : {}),
        ...more,
        ...Object.fromEntries(of.map(([n, v]) => [n, String(v)])),
      },
      { replace: true },
    );
  const save = (name: Measure) => async (value: number) => {
    let refusal: unknown;
    for (const candidate of candidates(given, name, value)) {
      try {
        await askLog(job.id, query(candidate));
        put(candidate);
        return;
      } catch (error) {
        refusal ??= error;
      }
    }
    // Nothing to solve from: what stood in the way of the usual log is in the way of this one too.
    throw refusal ?? found.error;
  };
  const isGiven = (name: Measure) => given.some(([n]) => n === name);
  return (
    <>
      <Work dim={dim || found.isPlaceholderData}>
        <StationHead
          title="Log"
          sub={log ? `${format.mass(log.mass_g)}, ${format.length(log.length_mm)} long` : undefined}
        >
          <SaveMenu>
            <SaveSvg picture={picture} name={`${job.name} log`} />
            <SaveSvg picture={strip} name={`${job.name} ruler strip`} label="Save ruler strip" />
            <a
              className="btn btn-small"
              href={at(
                `/api/jobs/${job.id}/log/strip.pdf?${new URLSearchParams(Object.entries(query(given)).map(([k, v]) => [k, String(v)]))}&paper=${format.ruler === "us" ? "letter" : "a4"}`,
              )}
            >
              Ruler strip PDF
            </a>
          </SaveMenu>
        </StationHead>
        <ShapeNav jobId={job.id} />
        <Fault text={otherFault(found.error, [])} />
        {log ? (
          <>
            <LogDrawing picture={picture} log={log} form={form} />
            <h3 className="h-part mb-1 mt-4">Ruler strip</h3>
            <p className="mb-2 text-soft">
              Lay it along the log and mark every line. The saved file prints at true size.
            </p>
            <RulerStrip picture={strip} log={log} name={job.name} />
          </>
        ) : null}
      </Work>
      <TicketBox>
        <Part title={log?.short_last_mm ? "Slices, the last a bit thinner" : "Number of slices"}>
          <p className="answer">
            <Live value={log ? String(log.slices) : ""} />
          </p>
          {log ? (
            <p className="mt-1 text-soft">
              {format.mass(log.slice_mass_g)} each; {format.mass(log.ends_g)} in the ends
              {log.rest_mm >= 0.5
                ? `, with ${format.length(Math.round(log.rest_mm * 10) / 10)} left over`
                : ""}
              .
            </p>
          ) : null}
        </Part>
        <Part title="Log shape">
          <Choice
            label="Section"
            value={form}
            options={FORMS}
            onChange={(f) =>
              setSearch(
                {
                  form: f,
                  ...(ends === "kept" ? { ends } : {}),
                  ...(given.some(([n]) => n === "height_mm")
                    ? {}
                    : Object.fromEntries(given.map(([n, v]) => [n, String(v)]))),
                },
                { replace: true },
              )
            }
          />
          <div className="mt-3">
            <Choice
              label="The ends"
              value={ends}
              options={[
                { value: "trimmed", label: "Ends trimmed" },
                { value: "kept", label: "Ends baked too" },
              ]}
              onChange={(v) => put(given, { ends: v })}
            />
          </div>
        </Part>
        <Part title="Type any three; the rest follow">
          <div className="grid grid-cols-2 gap-3">
            {MEASURES.filter((m) => tall || m !== "height_mm").map((name) => {
              const f = FIELDS[name];
              const value = log?.[name] ?? given.find(([n]) => n === name)?.[1] ?? 0;
              return (
                <div key={name}>
                  <Amount
                    label={`${f.label}${isGiven(name) ? "" : ": follows"}`}
                    kind={f.kind}
                    step={f.step}
                    value={Math.round(value * 10) / 10}
                    field={name}
                    onSave={save(name)}
                  />
                </div>
              );
            })}
          </div>
          <Why name="log" items={["Type a fourth and the oldest of your three follows instead."]} />
        </Part>
        {log ? (
          <Part title="Use it for this item">
            <p className="mb-2 text-fine text-soft">
              {job.making?.kind === "sliced"
                ? "This item is already sliced: these sizes replace its own."
                : "Just trying: the job is unchanged."}
            </p>
            <button
              type="button"
              className="btn btn-small"
              disabled={change.isPending}
              onClick={() =>
                change.mutate(
                  {
                    making: {
                      kind: "sliced",
                      form,
                      height_to_width: log.height_to_width ?? 1,
                      ends_kept: ends === "kept",
                      ...(log.length_mm > log.longest_mm ? { longest_mm: Math.ceil(log.length_mm) } : {}),
                      width_mm: Math.round(log.width_mm * 10) / 10,
                    },
                    thickness_mm: Math.round(log.slice_mm * 10) / 10,
                    pieces: log.slices,
                  },
                  { onSuccess: () => void navigate(`/jobs/${job.id}/shape`) },
                )
              }
            >
              {`Use this: ${log.slices} slices`}
            </button>
            <Fault text={otherFault(change.error, [])} />
          </Part>
        ) : null}
        {log ? (
          <Part title="At the bench">
            <Rows>
              {log.logs > 1 ? (
                <Row
                  name={`No longer than ${format.length(log.longest_mm)}`}
                >{`${log.logs} logs of ${format.mass(log.log_g)}`}</Row>
              ) : null}
              <Row name="Height">{format.length(Math.round(log.height_mm * 10) / 10)}</Row>
              {log.turn_every_min ? (
                <Row name="Turn it, until it is firm">{`every ${duration(log.turn_every_min)}`}</Row>
              ) : null}
            </Rows>
            <Why
              name="log-ends"
              items={[
                `${format.length(log.trim_mm)} comes off each end.`,
                `The last slice counts if it’s at least ${number(log.counts_from_percent, 0)}% as thick as the others. A thinner one goes with the ends.`,
              ]}
            />
          </Part>
        ) : null}
      </TicketBox>
    </>
  );
}
