/** The map of an oven's hot places: bread or sugar laid over the rack, and how dark each cell came out. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, settled, type Kitchen, type Schemas } from "../api/client";
import { useChangeKitchen } from "../api/queries";
import { say } from "../drawing/sentence";
import { Choice } from "../kit/Choice";
import { Fault, otherFault } from "../kit/Fault";
import { useFormat } from "../kit/settings";

type Spots = Schemas["HotSpotsBody"];

const GRIDS = [
  { value: "3x2", label: "3 × 2", columns: 3, rows: 2 },
  { value: "4x3", label: "4 × 3", columns: 4, rows: 3 },
  { value: "5x4", label: "5 × 4", columns: 5, rows: 4 },
] as const;

const empty = (test: Spots["test"], columns: number, rows: number): Spots => ({
  test,
  columns,
  rows,
  shades: Array.from({ length: columns * rows }, () => null),
});

export function HotSpotMap({ kitchen }: { kitchen: Kitchen }) {
  const format = useFormat();
  const change = useChangeKitchen();
  const [brush, setBrush] = useState(3);
  const spots = kitchen.hot_spots ?? empty("bread", 4, 3);
  const asked = useQuery({
    queryKey: ["hot-spots", spots],
    queryFn: () => settled(api.POST("/api/compute/hot-spots", { body: spots })),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const says = asked.data;
  const put = (to: (now: Spots) => Spots | null) =>
    change.mutate((now) => ({ hot_spots: to(now.hot_spots ?? empty("bread", 4, 3)) }));
  const grid = `${spots.columns}x${spots.rows}` as (typeof GRIDS)[number]["value"];
  const place = (i: number): string =>
    `row ${Math.floor(i / spots.columns) + 1} from the back, ${(i % spots.columns) + 1} from the left`;
  const word = (shade: number | null | undefined): string =>
    shade == null ? "nothing here" : (says?.shades[shade - 1] ?? "");
  const filled = spots.shades.some((s) => s != null);
  return (
    <div>
      <div className="mb-3 flex flex-wrap items-end gap-x-6 gap-y-3">
        <div>
          <span className="mb-1 block text-fine text-soft">Test with</span>
          <Choice
            label="Test with"
            value={spots.test}
            options={[
              { value: "bread", label: "Slices of bread" },
              { value: "sugar", label: "Sugar on paper" },
            ]}
            onChange={(test) => put((now) => ({ ...now, test }))}
          />
        </div>
        <div>
          <span className="mb-1 block text-fine text-soft">Places</span>
          <Choice
            label="Places"
            value={grid}
            options={GRIDS.map(({ value, label }) => ({ value, label }))}
            onChange={(v) => {
              const to = GRIDS.find((g) => g.value === v);
              if (to) put((now) => empty(now.test, to.columns, to.rows));
            }}
          />
        </div>
      </div>
      <div className="mb-4">
        <span className="mb-1 block text-fine text-soft">
          Choose a shade, then tap each spot that dark. Tap again to clear.
        </span>
        <div className="seg" role="radiogroup" aria-label="How dark">
          {[1, 2, 3, 4, 5].map((shade) => (
            <button
              key={shade}
              type="button"
              role="radio"
              aria-checked={brush === shade}
              data-state={brush === shade ? "on" : "off"}
              className="seg-item flex items-center gap-2"
              onClick={() => setBrush(shade)}
            >
              <span
                className="size-6 rounded-md border border-edge"
                style={{ background: says?.looks[shade - 1] }}
                aria-hidden="true"
              />
              {word(shade)}
            </button>
          ))}
        </div>
      </div>
      <div className="max-w-xl rounded-xl border-2 border-edge bg-stone-2 p-3">
        <p className="pb-2 text-center text-fine text-soft">back</p>
        <div
          className="grid gap-2"
          style={{ gridTemplateColumns: `repeat(${spots.columns}, minmax(0, 1fr))` }}
        >
          {spots.shades.map((shade, i) => {
            const hotter = shade == null ? undefined : says?.hotter_k[i];
            const off =
              hotter == null
                ? ""
                : `${hotter < -0.5 ? "−" : hotter > 0.5 ? "+" : ""}${format.difference(Math.abs(Math.round(hotter)))}`;
            return (
              <button
                key={i}
                type="button"
                className="flex min-h-16 flex-col items-center justify-center rounded-lg border-[1.5px] border-edge bg-raised p-1"
                aria-label={`${place(i)}: ${word(shade)}${off && `, ${off}`}`}
                onClick={() =>
                  put((now) => ({
                    ...now,
                    shades: now.shades.map((s, n) => (n === i ? (s === brush ? null : brush) : s)),
                  }))
                }
              >
                {shade == null ? (
                  <span className="text-fine text-soft" aria-hidden="true">
                    –
                  </span>
                ) : (
                  <>
                    <span
                      className="h-5 w-10 rounded border border-edge"
                      style={{ background: says?.looks[shade - 1] }}
                      aria-hidden="true"
                    />
                    <span className="num mt-1 text-fine">{off}</span>
                  </>
                )}
              </button>
            );
          })}
        </div>
        <p className="pt-2 text-center text-fine text-soft">door</p>
      </div>
      <Fault text={otherFault(change.error, []) ?? otherFault(asked.error, [])} />
      {filled ? (
        <p className="say mt-3 max-w-xl">
          {says?.advice ? say(says.advice, format) : "Even enough: no need to turn trays."}
        </p>
      ) : (
        <p className="mt-3 max-w-xl text-soft">
          {spots.test === "bread"
            ? `Cover the middle rack with white bread slices. Bake at ${format.temperature(175, 0)}, about 10 min, until the middle ones are golden.`
            : `Put 1 tsp granulated sugar on a bit of parchment at each spot. Bake at ${format.temperature(190, 0)} for 15 min. Melted sugar burns: let it set before you lift the tray.`}
        </p>
      )}
      {kitchen.hot_spots ? (
        <button type="button" className="btn btn-small mt-3" onClick={() => put(() => null)}>
          Delete the map
        </button>
      ) : null}
    </div>
  );
}
