/** The ticket: the answer, the few levers, what it rests on. */
import type { ReactNode } from "react";
import { say, textOf, type Said } from "../drawing/sentence";
import { useFormat } from "./settings";

export function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="border-t border-rule py-4 first:border-t-0 first:pt-0">
      <h3 className="h-part mb-2">{title}</h3>
      {children}
    </section>
  );
}

export function Row({ name, children }: { name: ReactNode; children: ReactNode }) {
  return (
    <div className="row">
      <dt className="text-soft">{name}</dt>
      <dd className="num text-right">{children}</dd>
    </div>
  );
}

export function Rows({ children }: { children: ReactNode }) {
  return <dl>{children}</dl>;
}

export function Reasons({ items }: { items: readonly Said[] }) {
  const format = useFormat();
  if (items.length === 0) return null;
  return (
    <ul className="space-y-1 text-fine text-soft">
      {items.map((text) => (
        <li key={textOf(text)}>{say(text, format)}</li>
      ))}
    </ul>
  );
}

/** What to mind, in the words that stand wherever it matters. */
export function Cautions({ items }: { items: readonly Said[] }) {
  const format = useFormat();
  return (
    <>
      {items.map((text) => (
        <p key={textOf(text)} className="caution mt-3">
          {say(text, format)}
        </p>
      ))}
    </>
  );
}

export function Work({ children, dim }: { children: ReactNode; dim: boolean }) {
  return (
    <div className={`paper min-w-0 p-5 sm:p-6 ${dim ? "opacity-60" : ""}`} aria-busy={dim}>
      {children}
    </div>
  );
}

export function TicketBox({ children }: { children: ReactNode }) {
  return (
    <aside className="no-print border-t border-rule p-5 sm:p-6 lg:border-l lg:border-t-0">{children}</aside>
  );
}

export function StationHead({
  title,
  sub,
  children,
}: {
  title: ReactNode;
  sub?: ReactNode;
  children?: ReactNode;
}) {
  return (
    <div className="mb-4 flex flex-wrap items-start justify-between gap-x-4 gap-y-2">
      <h2 className="h-station min-w-0 flex-1 basis-44 py-1.5">
        <span className="mr-2">{title}</span>
        {sub ? (
          <span className="font-sans text-base font-normal text-soft tracking-normal">{sub}</span>
        ) : null}
      </h2>
      <div className="no-print ml-auto flex flex-wrap justify-end gap-2 empty:hidden">{children}</div>
    </div>
  );
}
