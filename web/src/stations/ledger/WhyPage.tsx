/** Why a bake came out so: what was seen, what may be behind it, and the one test that tells the first two apart. */
import { useState } from "react";
import { Link, useParams } from "react-router";
import {
  useCauses,
  usePutTest,
  useSeen,
  useTries,
  type Cause,
  type Causes,
  type SeenWord,
  type Suspect,
} from "../../api/ledger";
import { useRecords } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { longDay } from "../../drawing/time";
import { number } from "../../drawing/units";
import { Fault, otherFault } from "../../kit/Fault";
import { Says } from "../../kit/Says";
import { Part, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { Unread } from "../../kit/Unread";
import { useKept } from "../../kit/kept";
import { LedgerNav } from "./LedgerNav";

const MOST = 4;
const SHOWN = 5;
type Answers = Partial<Record<Cause, boolean>>;

export function WhyPage() {
  const { job, dim } = useJobContext();
  const record = Number(useParams().record);
  const records = useRecords(job.id);
  const own = records.data?.find((r) => r.id === record);
  const words = useSeen();
  const [seen, setSeen] = useKept<SeenWord[]>(`seen ${record}`, []);
  const [answers, setAnswers] = useKept<Answers>(`clues ${record}`, {});
  const [all, setAll] = useState(false);
  const [choosing, setChoosing] = useState(false);
  const said = (so: boolean) =>
    Object.entries(answers)
      .filter(([, a]) => a === so)
      .map(([c]) => c)
      .join(",");
  const query = { seen: seen.join(","), so: said(true), not: said(false) };
  const asked = useCauses(record, query);
  const found = seen.length > 0 ? asked.data : undefined;
  const toggle = (word: SeenWord) =>
    setSeen((now) => (now.includes(word) ? now.filter((w) => w !== word) : [...now, word].slice(-MOST)));
  const answer = (cause: Cause, so: boolean) =>
    setAnswers((now) => ({ ...now, [cause]: now[cause] === so ? undefined : so }));
  const shown = all ? found?.suspects : found?.suspects.slice(0, SHOWN);
  return (
    <>
      <Work dim={dim}>
        <LedgerNav jobId={job.id} />
        <StationHead
          title="Why did it come out that way?"
          sub={own ? `bake of ${longDay(own.recorded_at)}` : undefined}
        />
        {records.data && !own ? (
          <p className="text-lg text-soft">
            This job has no such bake. <Link to={`/jobs/${job.id}/ledger`}>See its bakes</Link>
          </p>
        ) : null}
        {words.data ? (
          <fieldset>
            <legend className="mb-2 text-lg">What did you see?</legend>
            <div className="seg">
              {words.data
                .filter((w) => choosing || seen.length === 0 || seen.includes(w.seen))
                .map((w) => (
                  <button
                    key={w.seen}
                    type="button"
                    className="seg-item first-letter:uppercase"
                    data-state={seen.includes(w.seen) ? "on" : "off"}
                    aria-pressed={seen.includes(w.seen)}
                    onClick={() => toggle(w.seen)}
                  >
                    {w.name}
                  </button>
                ))}
              {seen.length > 0 ? (
                <button
                  type="button"
                  className="btn btn-quiet"
                  aria-expanded={choosing}
                  onClick={() => setChoosing(!choosing)}
                >
                  {choosing ? "Done" : "Add another"}
                </button>
              ) : null}
            </div>
          </fieldset>
        ) : (
          <Unread of={[words]} />
        )}
        <Fault text={otherFault(asked.error, [])} />
        {found ? (
          <ol
            className={`mt-6 ${asked.isPlaceholderData ? "opacity-60" : ""}`}
            aria-busy={asked.isPlaceholderData}
            aria-label="Possible causes, likeliest first"
          >
            {shown?.map((s) => (
              <SuspectRow key={s.cause} suspect={s} onAnswer={answer} />
            ))}
            <li className="border-t border-rule py-3 text-soft">
              Something else: <span className="num">{number(found.another_percent, 0)}%</span>
              {found.suspects.length > SHOWN ? (
                <button type="button" className="btn btn-small ml-4" onClick={() => setAll(!all)}>
                  {all ? "Show fewer" : `Show all ${found.suspects.length}`}
                </button>
              ) : null}
            </li>
          </ol>
        ) : seen.length > 0 && asked.isPending ? (
          <p role="status" className="mt-6 text-lg text-soft">
            Working it out…
          </p>
        ) : null}
      </Work>
      <TicketBox>
        {found ? (
          <TellApart key={JSON.stringify(query)} record={record} job={job.id} found={found} query={query} />
        ) : (
          <Part title="What to do first">
            <p className="text-soft">Choose up to four things you saw.</p>
          </Part>
        )}
        {found?.forecast_percent != null && found.came_out_percent != null ? (
          <Part title="Spread">
            <p>
              Forecast {number(found.forecast_percent, 1)}%, measured {number(found.came_out_percent, 1)}%.
            </p>
          </Part>
        ) : null}
        <p className="text-fine text-soft">
          These are guesses until you test one. If it could make someone sick, ask a food-safety expert.
        </p>
      </TicketBox>
    </>
  );
}

function SuspectRow({
  suspect: s,
  onAnswer,
}: {
  suspect: Suspect;
  onAnswer(cause: Cause, so: boolean): void;
}) {
  return (
    <li className="border-t border-rule py-3">
      <div className="flex items-baseline justify-between gap-4">
        <h3 className="h-part first-letter:uppercase">{s.name}</h3>
        <span className="num text-lg font-semibold">{number(s.share_percent, 0)}%</span>
      </div>
      <svg viewBox="0 0 400 10" preserveAspectRatio="none" className="mt-1 h-2 w-full" aria-hidden="true">
        <rect width="400" height="10" rx="3" className="fill-pale" />
        <rect width={Math.max(2, 4 * s.share_percent)} height="10" rx="3" className="fill-spruce" />
      </svg>
      <p className="mt-2 text-fine text-soft">
        <span className="inline-block first-letter:uppercase">
          <Says of={s.usual} />
        </span>
        {s.explains ? (
          <>
            ; <Says of={s.explains} />
          </>
        ) : null}
        .
      </p>
      {[
        ...s.speaks_for.map((of) => ({ of, so: true })),
        ...s.speaks_against.map((of) => ({ of, so: false })),
      ].map(({ of, so }) => (
        <p key={of.text} className="text-fine">
          <span className={`mr-1 font-semibold ${so ? "text-spruce" : "text-warm"}`}>
            {so ? "For:" : "Against:"}
          </span>
          <Says of={of} />
        </p>
      ))}
      <div className="mt-2 flex flex-wrap items-center gap-x-3 gap-y-1">
        <span className="grow">
          <Says of={s.asks} />
        </span>
        <span className="flex gap-1.5">
          {[true, false].map((so) => (
            <button
              key={String(so)}
              type="button"
              className="seg-item"
              data-state={s.answered === so ? "on" : "off"}
              aria-pressed={s.answered === so}
              aria-label={`${so ? "Yes" : "No"}: ${s.asks.text}`}
              onClick={() => onAnswer(s.cause, so)}
            >
              {so ? "Yes" : "No"}
            </button>
          ))}
        </span>
      </div>
    </li>
  );
}

function TellApart({
  record,
  job,
  found,
  query,
}: {
  record: number;
  job: number;
  found: Causes;
  query: { seen: string; so: string; not: string };
}) {
  const { mutate, isPending, isSuccess, error } = usePutTest();
  const tries = useTries(job);
  const first = found.suspects[0];
  const open = tries.data?.some(
    (t) => t.record_id === record && !t.noted && t.test?.says.text === found.test?.says.text,
  );
  return (
    <>
      {first ? (
        <Part title="If that’s it">
          <p className="text-lg">
            <Says of={first.remedy} />
          </p>
        </Part>
      ) : null}
      {found.test ? (
        <Part title={found.test.from ? "How to tell the top two apart" : "How to be sure"}>
          <p className="text-lg">
            <Says of={found.test.says} />
          </p>
          {found.test.from ? (
            <p className="mt-1 text-fine text-soft">
              Shows whether it’s “{found.test.of}” or “{found.test.from}”.
              {found.test.by_hand ? " Tell us afterward if it helped." : ""}
            </p>
          ) : null}
          <div className="mt-3">
            {isSuccess || open ? (
              <p role="status">
                You’ll see it at the bench next time you bake this dough.{" "}
                <Link to={`/jobs/${job}/ledger/trials`}>See tests</Link>
              </p>
            ) : (
              <button
                type="button"
                className="btn btn-main w-full"
                disabled={isPending}
                onClick={() => mutate({ record, query })}
              >
                Add to the next bake
              </button>
            )}
            <Fault text={otherFault(error, [])} />
          </div>
        </Part>
      ) : null}
    </>
  );
}
