/** After the bake: coats and fillings for the lot, when each goes on, and how long it keeps then. */
import { Says } from "../../kit/Says";
import { Fragment } from "react";
import { useQuery } from "@tanstack/react-query";
import { api, settled, type Schemas } from "../../api/client";
import { useChangeJob } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { say, textOf } from "../../drawing/sentence";
import { duration } from "../../drawing/time";
import { number } from "../../drawing/units";
import { Amount } from "../../kit/Amount";
import { Fault, otherFault } from "../../kit/Fault";
import { Live } from "../../kit/Live";
import { Tints } from "../../kit/Tints";
import { Why } from "../../kit/Fold";
import { Part, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { OvenNav } from "./OvenNav";

type Finish = Schemas["FinishBody"];
type Coat = Schemas["CoatView"];

const KINDS: readonly { where: string; kinds: readonly { kind: Finish["kind"]; name: string }[] }[] = [
  {
    where: "Icing",
    kinds: [
      { kind: "royal", name: "Royal icing" },
      { kind: "royal_fresh", name: "Royal icing, fresh egg white" },
      { kind: "fondant", name: "Fondant" },
      { kind: "buttercream", name: "Buttercream" },
    ],
  },
  {
    where: "Sugar glaze",
    kinds: [
      { kind: "water_glaze", name: "Sugar glaze" },
      { kind: "glaze_drizzle", name: "Drizzled" },
      { kind: "glaze_dip", name: "Dipped" },
      { kind: "spirit_glaze", name: "With liquor" },
    ],
  },
  {
    where: "Chocolate",
    kinds: [
      { kind: "dip", name: "Dipped" },
      { kind: "drizzle", name: "Drizzled" },
    ],
  },
  {
    where: "Sugar",
    kinds: [
      { kind: "coarse_sugar", name: "Coarse, before baking" },
      { kind: "coarse_sugar_after", name: "Coarse, on wet icing" },
      { kind: "powdered_sugar", name: "Powdered sugar" },
    ],
  },
  {
    where: "Filling",
    kinds: [
      { kind: "jam_baked", name: "Jam, baked in" },
      { kind: "jam", name: "Jam sandwich" },
      { kind: "chocolate_filling", name: "Chocolate sandwich" },
      { kind: "icing", name: "Buttercream sandwich" },
    ],
  },
];
const MOST = 4;

export function FinishPage() {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const change = useChangeJob(job.id);
  const { finish } = plan;
  const finishes = job.finishes ?? [];
  const cooling = useQuery({
    queryKey: ["cooling", job.id, plan.oven.forecast?.bake_min, plan.oven.forecast?.thickness_mm],
    queryFn: () => settled(api.GET("/api/jobs/{id}/cooling", { params: { path: { id: job.id } } })),
    enabled: plan.oven.forecast != null,
    retry: false,
  }).data;
  const put = (next: (now: readonly Finish[]) => Finish[]) =>
    change.mutateAsync((now) => ({ finishes: next(now.finishes ?? []) }));
  const total = finish.coats.reduce((sum, c) => sum + c.total_g, 0);
  return (
    <>
      <Work dim={dim}>
        <StationHead title="Finish and store" sub={`${finish.pieces} cookies`} />
        <OvenNav jobId={job.id} />
        <Fault text={otherFault(change.error, ["finishes"])} />
        {finish.coats.length === 0 ? (
          <p className="mb-4 max-w-xl text-lg">Plain for now. Choose an icing, glaze, sugar or filling.</p>
        ) : null}
        <ol className="space-y-4">
          {finish.coats.map((coat, i) => (
            <CoatCard
              key={`${coat.name} ${i}`}
              coat={coat}
              finish={finishes[i]}
              number={i}
              all={finish.pieces}
              onChange={(more) => put((now) => now.map((f, n) => (n === i ? { ...f, ...more } : f)))}
              onRemove={() => put((now) => now.filter((_, n) => n !== i))}
            />
          ))}
        </ol>
        {finishes.length < MOST ? (
          <div className="no-print mt-5">
            <h3 className="h-part mb-2">{finishes.length === 0 ? "Add a finish" : "Add another finish"}</h3>
            <div className="grid gap-x-4 gap-y-2 sm:grid-cols-[auto_1fr] sm:items-center">
              {KINDS.map(({ where, kinds }) => (
                <Fragment key={where}>
                  <span className="text-soft" id={`finish-${where.replace(" ", "-")}`}>
                    {where}
                  </span>
                  <div
                    className="seg justify-self-start"
                    role="group"
                    aria-labelledby={`finish-${where.replace(" ", "-")}`}
                  >
                    {kinds.map((k) => (
                      <button
                        key={k.kind}
                        type="button"
                        className="seg-item"
                        disabled={change.isPending}
                        onClick={() => void put((now) => [...now, { kind: k.kind }]).catch(() => undefined)}
                      >
                        {k.name}
                      </button>
                    ))}
                  </div>
                </Fragment>
              ))}
            </div>
          </div>
        ) : null}
      </Work>
      <TicketBox>
        <Part title="How long they keep">
          <p className="answer">
            <Live value={days(finish.tin_least_days, finish.tin_most_days)} />
          </p>
          <p className="mb-2 mt-1 text-soft">
            {finish.in_the_cold ? "refrigerated, airtight" : "airtight, cool and dry"}
          </p>
          <Rows>
            <Row name="Frozen, well wrapped">
              {finish.freezer_most_months == null
                ? "plain cookies only"
                : `${number(finish.freezer_least_months ?? 0, 1)}–${number(finish.freezer_most_months, 1)} months`}
            </Row>
            {finish.coats.length > 0 ? <Row name="Total to make">{format.mass(total)}</Row> : null}
          </Rows>
          <Why name="finish-keeps" items={finish.reasons} />
        </Part>
        <Part title="When they can be finished">
          <Rows>
            <Row name="First coat, while warm">
              {cooling?.lifts_after_min == null
                ? "once they lift off the tray"
                : `from ${number(cooling.lifts_after_min, 0)}\u00a0min`}
            </Row>
            <Row name="Glaze, chocolate, filling">
              {cooling?.packs_after_min == null
                ? "once cool all the way through"
                : `after ${number(cooling.packs_after_min, 0)}\u00a0min`}
            </Row>
          </Rows>
          <p className="mt-2 text-fine text-soft">
            Times are on the tray; sooner on a rack. Cool in a single layer, uncovered, in a dry room: packed
            warm, they soften.
          </p>
        </Part>
        <Part title="Packing">
          <Rows>
            <Row name="Cookies in a stack">
              {finish.packing.on_each_other === 1 ? "single layer" : `up to ${finish.packing.on_each_other}`}
            </Row>
            <Row name="Parchment pieces between">
              {finish.packing.papers === 0 ? "none" : finish.packing.papers}
            </Row>
            <Row name="Pack">
              {finish.packing.after_min == null
                ? "once at room temperature"
                : `${duration(finish.packing.after_min)} after the last is done`}
            </Row>
            {finish.packing.one_layer_after_min == null ? null : (
              <Row name="In a single layer, with a fan">{`after ${duration(finish.packing.one_layer_after_min)}`}</Row>
            )}
          </Rows>
          <Why name="finish-packing" items={[finish.packing.reason]} />
        </Part>
        {finish.spirit ? (
          <Part title="Alcohol">
            <p className="say">{`${number(finish.spirit.mixed_g, 2)}\u00a0g of alcohol mixed in per cookie, ${finish.spirit.left_least_g === finish.spirit.left_most_g ? number(finish.spirit.left_least_g, 2) : `${number(finish.spirit.left_least_g, 2)} to ${number(finish.spirit.left_most_g, 2)}`}\u00a0g left.`}</p>
            <Why name="finish-alcohol" items={[finish.spirit.reason]} />
          </Part>
        ) : null}
        <Part title="Labels and local rules">
          <p className="caution mb-2">
            {plan.dough.allergens.length === 0
              ? "Label: list what’s in the icing and filling, too."
              : `Label: ${plan.dough.allergens.join(", ")}. Add what’s in the icing and filling.`}
          </p>
          <p className="caution">
            If you sell them, local rules on labels, kitchens and shelf life come first.
          </p>
        </Part>
      </TicketBox>
    </>
  );
}

const days = (least: number, most: number): string =>
  most >= 14
    ? `${number(least / 7, 0)}–${number(most / 7, 0)} weeks`
    : `${number(least, 0)}–${number(most, 0)} days`;

function CoatCard({
  coat,
  finish,
  number: n,
  all,
  onChange,
  onRemove,
}: {
  coat: Coat;
  finish: Finish | undefined;
  number: number;
  all: number;
  onChange(more: Partial<Finish>): Promise<unknown>;
  onRemove(): Promise<unknown>;
}) {
  const format = useFormat();
  const between = finish?.layer_mm != null;
  return (
    <li className="rounded-xl border border-rule bg-raised p-4">
      <div className="flex items-start justify-between gap-3">
        <div className="min-w-0">
          <h3 className="font-head text-xl">{coat.name}</h3>
          <p className="text-soft">{coat.when}</p>
        </div>
        <button
          type="button"
          className="btn btn-small no-print shrink-0"
          aria-label={`Remove ${coat.name}`}
          onClick={() => void onRemove().catch(() => undefined)}
        >
          Remove
        </button>
      </div>
      <div className="mt-3 grid gap-x-6 gap-y-3 md:grid-cols-[auto_1fr]">
        <p>
          <span className="block font-head text-3xl font-bold">
            <Live value={format.mass(coat.total_g)} />
          </span>
          <span className="text-fine text-soft">{`${format.mass(coat.each_g)} ${between ? "per pair" : "each"}, ${coat.count} ${between ? "pairs" : coat.count < all ? `of ${all} cookies` : "cookies"}`}</span>
        </p>
        <dl>
          {coat.parts.map((p) => (
            <Row key={p.name} name={p.name}>
              {format.mass(p.mass_g)}
            </Row>
          ))}
        </dl>
      </div>
      {coat.uses.length > 0 ? (
        <ul className="mt-3 space-y-1">
          {coat.uses.map((u) => (
            <li key={u.name}>
              <span className="num font-semibold">{format.mass(u.mass_g)}</span> {u.name}, {u.right_when}
              {u.thinner_g >= 0.05 ? `, with ${format.mass(u.thinner_g)} water` : ""}.
            </li>
          ))}
        </ul>
      ) : null}
      {coat.colours.length > 0 ? (
        <ul className="mt-3 space-y-1">
          {coat.colours.map((c) => (
            <li key={c.name}>
              <span className="num font-semibold">{format.mass(c.mass_g)}</span> {c.name}: start with{" "}
              {format.mass(c.paste_g)} color paste
            </li>
          ))}
        </ul>
      ) : null}
      {coat.dry_min > 0 ? (
        <p className="mt-3">
          {coat.touch_min < coat.dry_min
            ? `Dry to the touch in ${duration(coat.touch_min)}, all the way in ${duration(coat.dry_min)}.`
            : `Set in ${duration(coat.dry_min)}.`}
        </p>
      ) : null}
      {finish ? (
        <div className="no-print mt-3 grid max-w-md grid-cols-2 gap-3">
          <Amount
            label={`How many of ${all}`}
            kind="count"
            step={1}
            value={finish.pieces ?? all}
            field={`finishes[${n}].pieces`}
            onSave={(pieces) => onChange({ pieces: pieces >= all ? null : pieces })}
          />
          {finish.sugar_parts == null ? null : (
            <Amount
              label="Sugar to 1 part liquid"
              kind="ratio"
              step={0.5}
              value={finish.sugar_parts}
              field={`finishes[${n}].sugar_parts`}
              onSave={(sugar_parts) => onChange({ sugar_parts })}
            />
          )}
          {finish.part_percent == null ? null : (
            <Amount
              label="Share of each cookie"
              kind="percent"
              step={5}
              value={finish.part_percent}
              field={`finishes[${n}].part_percent`}
              onSave={(part_percent) => onChange({ part_percent })}
            />
          )}
          {finish.film_mm == null ? null : (
            <Amount
              label="Coat thickness"
              kind="length"
              step={0.1}
              value={finish.film_mm}
              field={`finishes[${n}].film_mm`}
              onSave={(film_mm) => onChange({ film_mm })}
            />
          )}
          {finish.layer_mm == null ? null : (
            <Amount
              label="Filling thickness"
              kind="length"
              step={0.5}
              value={finish.layer_mm}
              field={`finishes[${n}].layer_mm`}
              onSave={(layer_mm) => onChange({ layer_mm })}
            />
          )}
          {finish.each_g == null ? null : (
            <Amount
              label="Per cookie"
              kind="mass"
              step={0.5}
              value={finish.each_g}
              field={`finishes[${n}].each_g`}
              onSave={(each_g) => onChange({ each_g })}
            />
          )}
        </div>
      ) : null}
      {finish && coat.takes_colour ? (
        <div className="no-print mt-3 max-w-md">
          <Tints
            of="the icing"
            field={`finishes[${n}].colours`}
            tints={finish.colours ?? []}
            onSave={(colours) => onChange({ colours })}
          />
        </div>
      ) : null}
      <p className="mt-2 text-fine text-soft">{say(coat.reason, format)}</p>
      {coat.cautions.map((c) => (
        <p key={textOf(c)} className="caution mt-2">
          <Says of={c} />
        </p>
      ))}
    </li>
  );
}
