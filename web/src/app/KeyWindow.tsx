/** The sheet that lists the keys. */
import { useSettings } from "../kit/settings";
import { Window } from "../kit/Window";
import { STATIONS } from "./stations";

const OTHERS: [string, string][] = [
  ["S", "the shelf"],
  ["L", "in the cold, live"],
  ["K", "the kitchen"],
  ["P", "the pantry"],
  ["R", "read a recipe"],
  ["Ctrl Enter", "keep what was read"],
  ["Ctrl Z", "undo"],
  ["Ctrl Shift Z", "redo"],
  ["↑ ↓ in a value", "a little more or less"],
  ["Enter in a value", "keep it"],
  ["Esc in a value", "leave it as it was"],
  ["?", "this sheet"],
];

export function KeyWindow({ open, onOpen }: { open: boolean; onOpen(open: boolean): void }) {
  const { singleKeys, setSingleKeys } = useSettings();
  return (
    <Window title="Keys" open={open} onOpen={onOpen}>
      <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-2 sm:grid-cols-[auto_1fr_auto_1fr]">
        {STATIONS.map((s, i) => (
          <Key key={s.key} name={String(i + 1)} does={s.name} />
        ))}
        {OTHERS.map(([name, does]) => (
          <Key key={name} name={name} does={does} />
        ))}
      </dl>
      <p className="mt-5 text-fine text-soft">
        Values take their unit as you type it: 1/4 in, 6mm, 350F, 4 dozen. Keys rest while you type in a
        value.
      </p>
      <label className="mt-4 flex min-h-11 items-center gap-3">
        <input
          type="checkbox"
          className="h-5 w-5 accent-[var(--c-spruce)]"
          checked={singleKeys}
          onChange={(e) => setSingleKeys(e.target.checked)}
        />
        Single letters and numbers act. Turn it off if you speak to the computer, or if a cat walks over it.
      </label>
    </Window>
  );
}

function Key({ name, does }: { name: string; does: string }) {
  return (
    <>
      <dt className="num whitespace-nowrap font-semibold">{name}</dt>
      <dd className="text-soft">{does}</dd>
    </>
  );
}
