/** The sheet that lists the keys. */
import { useSettings } from "../kit/settings";
import { Window } from "../kit/Window";
import { STATIONS } from "./stations";

const OTHERS: [string, string][] = [
  ["S", "Jobs"],
  ["L", "Chilling now"],
  ["K", "Kitchen"],
  ["P", "Pantry"],
  ["R", "Add a recipe"],
  ["Ctrl Enter", "Save the recipe"],
  ["Ctrl Z", "Undo"],
  ["Ctrl Shift Z", "Redo"],
  ["↑ ↓ in a field", "A little more or less"],
  ["Enter in a field", "Save"],
  ["Esc in a field", "Cancel"],
  ["?", "This list"],
];

export function KeyWindow({ open, onOpen }: { open: boolean; onOpen(open: boolean): void }) {
  const { singleKeys, setSingleKeys } = useSettings();
  return (
    <Window title="Keyboard shortcuts" open={open} onOpen={onOpen}>
      <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-2 sm:grid-cols-[auto_1fr_auto_1fr]">
        {STATIONS.map((s, i) => (
          <Key key={s.key} name={String(i + 1)} does={s.name} />
        ))}
        {OTHERS.map(([name, does]) => (
          <Key key={name} name={name} does={does} />
        ))}
      </dl>
      <p className="mt-5 text-fine text-soft">
        Type any unit: 1/4 in, 6mm, 350F, 4 dozen. Shortcuts are off while you type.
      </p>
      <label className="mt-4 flex min-h-11 items-center gap-3">
        <input
          type="checkbox"
          className="h-5 w-5 accent-[var(--c-spruce)]"
          checked={singleKeys}
          onChange={(e) => setSingleKeys(e.target.checked)}
        />
        Single-key shortcuts. Turn them off if you use voice control.
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
