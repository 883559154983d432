/** What a kilogram of an ingredient costs, edited in place; empty forgets it. */
import { useSavePrice } from "../api/queries";
import { number } from "../drawing/units";
import { Fault, Misread } from "../kit/Fault";
import { DraftInput, selectAll, useDraft } from "../kit/TextField";

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
      if (value !== null && !Number.isFinite(value))
        throw new Misread("Type a price, like 9.50, or leave it empty.");
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
        <DraftInput
          className="field num"
          aria-label={`Price of a kilogram of ${name}`}
          inputMode="decimal"
          placeholder="no price"
          onFocus={selectAll}
          change={draft}
        />
      </span>
      <Fault text={draft.fault} />
    </div>
  );
}
