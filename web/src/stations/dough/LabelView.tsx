/** What the dough costs, and the draft of its label. */
import { Link } from "react-router";
import { useLabel } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { number } from "../../drawing/units";
import { Live } from "../../kit/Live";
import { Part, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { Price } from "../../pantry/Price";
import { Unread } from "../../kit/Unread";
import { useFormat } from "../../kit/settings";
import { useJobFormula } from "./Dough";
import { DoughNav } from "./DoughNav";

export function LabelView() {
  const { job, dim } = useJobContext();
  const format = useFormat();
  const formula = useJobFormula();
  const label = useLabel(job.id);
  const l = label.data;
  const money = (v: number) => `${l?.currency ?? ""} ${number(v, 2, 2)}`;
  const most = Math.max(...(l?.lines.map((x) => x.cost ?? 0) ?? [0]), 0.01);
  return (
    <>
      <Work dim={dim || label.isFetching}>
        <StationHead title="Cost and label" sub={formula?.name}>
          <button type="button" className="btn btn-small" onClick={() => print()}>
            Print label
          </button>
        </StationHead>
        <DoughNav jobId={job.id} />
        {l ? null : <Unread of={[label]} />}
        {l ? (
          <>
            <div className="label-card mb-6">
              <p className="text-fine">Ingredients (draft)</p>
              <p className="mt-1 text-lg leading-snug">{l.text}</p>
              <p className="mt-2">
                <strong>Contains:</strong> {l.allergens.join(", ") || "no allergen known"}.
              </p>
            </div>
            <p className="caution no-print mb-6">
              Draft, heaviest ingredient first. Ask your food authority what a label must say: wording, order,
              traces, weight, date. Ask too if a home kitchen may sell. Local rules come first.
            </p>
            <table className="no-print w-full border-collapse">
              <caption className="h-part mb-1 text-left">
                Ingredients for {format.bigMass(l.lines.reduce((s, x) => s + x.mass_g, 0))} of dough
              </caption>
              <thead>
                <tr className="text-left text-fine text-soft">
                  <th scope="col" className="py-1 font-normal">
                    Ingredient
                  </th>
                  <th scope="col" className="py-1 text-right font-normal">
                    Weight
                  </th>
                  <th scope="col" className="w-36 py-1 pl-3 font-normal">
                    {format.units.weight === "oz" ? "Per lb" : "Per kg"}
                  </th>
                  <th scope="col" className="py-1 text-right font-normal">
                    Cost
                  </th>
                  <th scope="col" className="hidden sm:table-cell">
                    <span className="visually-hidden">Share of cost</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {l.lines.map((x, i) => (
                  <tr key={`${x.ingredient}-${i}`} className="border-t border-rule">
                    <th scope="row" className="py-1 pr-2 text-left font-semibold">
                      {x.name}
                    </th>
                    <td className="num whitespace-nowrap text-right">{format.mass(x.mass_g)}</td>
                    <td className="py-1 pl-3">
                      <Price
                        ingredient={x.ingredient}
                        name={x.name}
                        price={x.price_per_kg ?? null}
                        currency={l.currency}
                      />
                    </td>
                    <td className="num whitespace-nowrap pl-2 text-right font-semibold">
                      {x.cost === null || x.cost === undefined ? "–" : money(x.cost)}
                    </td>
                    <td className="hidden w-[18%] pl-3 sm:table-cell" aria-hidden="true">
                      <div className="h-2.5 rounded-full bg-stone">
                        <div
                          className="h-2.5 rounded-full bg-butter-deep"
                          style={{ width: `${(100 * (x.cost ?? 0)) / most}%` }}
                        />
                      </div>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </>
        ) : null}
      </Work>
      <TicketBox>
        <Part
          title={l?.cost_a_piece === null || l?.cost_a_piece === undefined ? "Cost so far" : "Per cookie"}
        >
          {l ? (
            <>
              <p className="answer">
                <Live value={money(l.cost_a_piece ?? l.cost)} />
              </p>
              <p className="mb-3 mt-1 text-soft">for ingredients</p>
              <Rows>
                <Row name="All the dough">{money(l.cost)}</Row>
                <Row name="Cookies">{l.pieces}</Row>
                <Row name="Dough weight with a price">{number(l.priced_percent, 0)}%</Row>
              </Rows>
              {l.without_price.length > 0 ? (
                <p className="mt-3 text-fine text-soft">
                  No price yet: {l.without_price.join(", ").toLowerCase()}.
                </p>
              ) : null}
              <p className="mt-3 text-fine text-soft">
                Ingredients only: no labor, oven, parchment or rent. Set prices in the{" "}
                <Link to="/pantry" className="underline">
                  pantry
                </Link>
                .
              </p>
            </>
          ) : null}
        </Part>
        {l ? (
          <Part title="By weight">
            <Rows>
              {l.items.map((i) => (
                <Row key={i.name} name={i.name}>
                  {number(i.percent, 1, 1)}%
                </Row>
              ))}
            </Rows>
          </Part>
        ) : null}
      </TicketBox>
    </>
  );
}
