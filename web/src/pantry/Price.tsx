/** What a kilogram of an ingredient costs, edited in place; empty forgets it. */
import { Refusal } from "../api/client";
import { useSavePrice } from "../api/queries";
import { number } from "../drawing/units";
import { Fault } from "../kit/Fault";
import { useDraft } from "../kit/TextField";

export function Price({
  ingredient,
  name,
  price,
  currency,
}: {
  ingredient: string;
  name: string;
  price: number | null;
  currency: string;
}) {
  const { mutateAsync } = useSavePrice();
  const text = price === null ? "" : number(price, 2, 2).replaceAll(",", "");
  const draft = useDraft(
    text,
    async (typed) => {
      const bare = typed.replace(currency, "").trim().replace(",", ".");
      const value = bare === "" ? null : Number(bare);
      if (value !== null && !Number.isFinite(value)) {
        const message = `\u201c${typed.slice(0, 20)}\u201d is not understood; try a price such as 9.50, or nothing`;
        throw new Refusal({
          title: "",
          status: 422,
          detail: message,
          errors: [{ field: "price_per_kg", message, accepted: "a price such as 9.50" }],
        });
      }
      await mutateAsync({ key: ingredient, price_per_kg: value });
    },
    "price_per_kg",
  );
  return (
    <div>
      <span className="flex items-center gap-1.5">
        <span className="text-soft" aria-hidden="true">
          {currency}
        </span>
        <input
          className="field num"
          aria-label={`Price of a kilogram of ${name}`}
          inputMode="decimal"
          placeholder="no price"
          value={draft.draft}
          aria-invalid={draft.fault ? true : undefined}
          onFocus={(e) => e.target.select()}
          onChange={(e) => draft.set(e.target.value)}
          onBlur={draft.commit}
          onKeyDown={(e) => {
            if (e.key === "Enter") draft.commit();
            if (e.key === "Escape") draft.reset();
          }}
        />
      </span>
      <Fault text={draft.fault} />
    </div>
  );
}
