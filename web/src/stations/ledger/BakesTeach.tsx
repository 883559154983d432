/** What the recorded bakes teach of the oven and of this dough: shown before and after, taken over or forgotten. */
import { useQuery } from "@tanstack/react-query";
import { api, settled, type Schemas } from "../../api/client";
import { useAction, useKitchen } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { number } from "../../drawing/units";
import { Fault, otherFault } from "../../kit/Fault";
import { Part, Row, Rows } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";

type Taught = Schemas["TaughtView"];
type Band = Schemas["BandView"];

const at = (id: number) => ({ params: { path: { id } } });

export function BakesTeach({ records }: { records: number }) {
  const { job } = useJobContext();
  const format = useFormat();
  const measured = (useKitchen().data?.oven_readings ?? []).length > 0;
  const asked = useQuery({
    queryKey: ["bakes-teach", job.id, records],
    queryFn: () => settled(api.GET("/api/jobs/{id}/bakes-teach", at(job.id))),
    enabled: records > 0,
    retry: false,
  });
  const take = useAction(() => settled(api.POST("/api/jobs/{id}/bakes-teach", at(job.id))));
  const forget = useAction(() => settled(api.DELETE("/api/jobs/{id}/bakes-teach", at(job.id))));
  const found = asked.data;
  if (records === 0 && !found?.taken) return null;
  const says = (t: Taught): string => {
    const than = measured ? "than its thermometer showed" : "than set";
    const oven =
      t.offset_k == null || t.offset_sd_k == null
        ? "Its thermometer was read since, and counts."
        : `The oven is ${Math.abs(t.offset_k) < 0.5 ? `no hotter or cooler ${than}` : `${format.difference(Math.abs(t.offset_k))} ${t.offset_k < 0 ? "cooler" : "hotter"} ${than}`}, give or take ${format.difference(t.offset_sd_k)}, by ${counted(t.oven_records)}.`;
    const dough = t.records === 0 ? " Of this dough itself nothing is recorded." : ` This dough spreads ${number(t.spread, 2)} times as far as the model has it, give or take ${number(t.spread_sd_percent, 0)}\u00a0%, takes ${number(t.time, 2)} times as long and browns ${number(t.browning, 2)} times as fast, by ${counted(t.records)}.`;
    const heat = t.heat == null || t.heat_sd_percent == null ? "" : ` It heats ${number(t.heat, 2)} times as strongly as the model has it, give or take ${number(t.heat_sd_percent, 0)}\u00a0%; the two trade off.`;
    return oven + heat + dough;
  };
  return (
    <Part title="What your bakes teach">
      <Fault text={otherFault(asked.error, []) ?? otherFault(take.error, []) ?? otherFault(forget.error, [])} />
      {asked.isPending ? <p className="text-soft" role="status">Reading the records of this kitchen…</p> : null}
      {found?.would ? (
        <>
          <p className="say">{says(found.would)}</p>
          <div className="mt-3">
            <Rows>
              <Row name="Bakes it rests on">{`${found.would.oven_records} of ${found.records}, ${found.would.records} of this dough`}</Row>
              <Row name="Without them">{bandWords(found.before)}</Row>
              {found.after ? <Row name="With them">{bandWords(found.after)}</Row> : null}
            </Rows>
          </div>
          {found.set_aside.length > 0 ? <p className="mt-2 text-fine text-soft">{found.set_aside.length === 1 ? "One record does" : `${found.set_aside.length} records do`} not fit with the others and {found.set_aside.length === 1 ? "is" : "are"} set aside.</p> : null}
          {found.incomplete.length > 0 ? <p className="mt-2 text-fine text-soft">{found.incomplete.length === 1 ? "One record does" : `${found.incomplete.length} records do`} not say what it was baked with, and {found.incomplete.length === 1 ? "teaches" : "teach"} nothing.</p> : null}
          {found.beyond.length > 0 ? <p className="mt-2 text-fine text-soft">{found.beyond.length} lie beyond what the forecast knows.</p> : null}
        </>
      ) : found && !asked.isPending ? (
        <p className="text-fine text-soft">{found.incomplete.length > 0 ? "The records here do not say what they were baked with: nothing is learnt from them." : "No bake close enough to compare."}</p>
      ) : null}
      {found?.taken ? <p className="mt-3 text-fine text-soft">{`Taken over: ${says(found.taken)}`}</p> : null}
      <div className="mt-3 flex flex-wrap gap-2">
        <button type="button" className="btn btn-main" disabled={!found?.would || take.isPending} onClick={() => take.mutate(undefined)}>
          Let the forecast learn it
        </button>
        {found?.taken ? (
          <button type="button" className="btn" disabled={forget.isPending} onClick={() => forget.mutate(undefined)}>
            Forget it
          </button>
        ) : null}
      </div>
    </Part>
  );
}

const counted = (n: number): string => (n === 1 ? "one bake" : `${n} bakes`);

const bandWords = (b: Band): string => `${number(b.bake_least_min, 0)}–${number(b.bake_most_min, 0)}\u00a0min, ${number(b.spread_least_percent, 1)}–${number(b.spread_most_percent, 1)}\u00a0%`;
