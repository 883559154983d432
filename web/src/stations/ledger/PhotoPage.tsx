/** Baked pieces on a sheet of paper are measured from a photo; what was found is shown over the paper, put right and approved. */
import { useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { at } from "../../api/base";
import type { BakePhoto, BakePhotoQuery } from "../../api/client";
import { useBakePhoto } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { outlinePath } from "../../drawing/path";
import { number } from "../../drawing/units";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, faultOf, otherFault } from "../../kit/Fault";
import { FileButton } from "../../kit/FileButton";
import { PAPERS, PaperCorners, START, cornersQuery, type Corner } from "../../kit/PaperCorners";
import { Says } from "../../kit/Says";
import { Part, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { LedgerNav } from "./LedgerNav";
import { EDGES } from "./NewRecord";
import { approved, useDraft } from "./draft";

interface Shown {
  blob: Blob;
  url: string;
  width: number;
  height: number;
}

const FIELDS = ["photo", "corners", "paper", "thickness_mm", "pointed_mm"];
type Points = readonly (readonly [number, number])[];

export function PhotoPage() {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const navigate = useNavigate();
  const [, setDraft] = useDraft(job.id);
  const [photo, setPhoto] = useState<Shown>();
  const [paper, setPaper] = useState<BakePhotoQuery["paper"]>(format.ruler === "us" ? "letter" : "a4");
  const [thickness_mm, setThickness] = useState(plan.oven.forecast?.thickness_mm ?? plan.oven.thickness_mm);
  const [corners, setCorners] = useState<readonly Corner[]>();
  const [pointed, setPointed] = useState<Points>([]);
  const [out, setOut] = useState<ReadonlySet<number>>(new Set());
  const [unread, setUnread] = useState("");
  const [seed, setSeed] = useState(1);
  const asked = useRef<BakePhotoQuery>(undefined);
  const { mutate, reset, data: found, error, isPending } = useBakePhoto(job.id);
  useEffect(
    () => () => {
      if (photo) URL.revokeObjectURL(photo.url);
    },
    [photo],
  );

  const measure = (
    of: Blob,
    by: {
      paper?: BakePhotoQuery["paper"];
      thickness_mm?: number;
      corners?: readonly Corner[] | undefined;
      pointed?: Points;
    },
  ) => {
    const points = by.pointed ?? pointed;
    const laid = "corners" in by ? by.corners : corners;
    const query: BakePhotoQuery = {
      paper: by.paper ?? paper,
      thickness_mm: by.thickness_mm ?? thickness_mm,
      ...(laid ? { corners: cornersQuery(laid) } : {}),
      ...(points.length > 0
        ? {
            pointed_mm: points
              .flat()
              .map((v) => v.toFixed(2))
              .join(","),
          }
        : {}),
    };
    asked.current = query;
    setOut(new Set());
    mutate({ photo: of, query });
  };
  const take = async (file: Blob) => {
    reset();
    setUnread("");
    setCorners(undefined);
    setPointed([]);
    try {
      const bitmap = await createImageBitmap(file);
      setPhoto({ blob: file, url: URL.createObjectURL(file), width: bitmap.width, height: bitmap.height });
      bitmap.close();
    } catch {
      // The server says what is wrong with it, and what to do.
      setPhoto(undefined);
    }
    measure(file, { corners: undefined, pointed: [] });
  };
  const madeUp = async () => {
    try {
      const answer = await fetch(at(`/api/jobs/${job.id}/photo/made-up?paper=${paper}&seed=${seed}`));
      if (!answer.ok) throw new Error("no picture");
      setSeed(seed + 1);
      await take(await answer.blob());
    } catch {
      setUnread("Couldn’t make a sample photo for this job.");
    }
  };
  const toggle = (index: number) =>
    setOut((now) => {
      const next = new Set(now);
      if (!next.delete(index)) next.add(index);
      return next;
    });
  const point = (x: number, y: number) => {
    if (!photo) return;
    const next = [...pointed, [x, y] as const];
    setPointed(next);
    measure(photo.blob, { pointed: next });
  };
  const used = found?.pieces.filter((_, i) => !out.has(i)) ?? [];
  const approve = async () => {
    if (!photo || !asked.current) return;
    approved.set(job.id, { photo: photo.blob, query: asked.current });
    const measured_mm = used.map((p) => Math.round(p.width_mm * 100) / 100);
    setDraft((now) => ({ ...now, measured_mm, edge: found?.edge_colour ?? now.edge }));
    await navigate(`/jobs/${job.id}/ledger`);
  };
  const lay = () => {
    setCorners((now) => now ?? found?.corners.map(([x = 0, y = 0]) => [x, y] as const) ?? START);
    reset();
  };
  // No sheet was seen, or another one than was said: the corners are shown by hand.
  const showsCorners =
    photo && !found && !isPending && (corners !== undefined || faultOf(error, "corners") !== undefined);
  return (
    <>
      <Work dim={dim}>
        <LedgerNav jobId={job.id} />
        <StationHead
          title={found ? <Says of={found.headline} /> : "Measure with a photo"}
          sub={
            found
              ? `camera ${number(found.tilt_degrees, 0)}° aside, ${format.length(found.camera_height_mm)} up`
              : undefined
          }
        />
        {isPending ? (
          <p role="status" className="text-lg text-soft">
            Measuring…
          </p>
        ) : null}
        {found && !isPending ? <Approval found={found} out={out} onToggle={toggle} onPoint={point} /> : null}
        {showsCorners ? (
          <>
            <p className="mb-3 text-soft">
              Drag the four handles to the paper’s corners, in order around it.
            </p>
            <PaperCorners
              photo={photo}
              corners={corners ?? START}
              onMove={(index, to) => setCorners((corners ?? START).map((c, i) => (i === index ? to : c)))}
            />
          </>
        ) : null}
        {!found && !isPending && !showsCorners ? (
          <div className="max-w-xl space-y-3 text-lg">
            <p>
              Lay cold cookies on white paper, a finger apart, on a darker table. Shoot from straight above,
              all four corners showing, no flash.
            </p>
            <p className="text-soft">The photo stays on this machine.</p>
          </div>
        ) : null}
      </Work>
      <TicketBox>
        <Part title="Photo">
          <div className="space-y-3">
            <div className="flex flex-wrap gap-2">
              <FileButton
                label="Choose a photo of the cookies"
                accept="image/jpeg,image/png,image/webp,image/heic"
                onFile={(f) => void take(f)}
              >
                {photo ? "Another photo" : "Choose a photo"}
              </FileButton>
              <button type="button" className="btn" disabled={isPending} onClick={() => void madeUp()}>
                Try a sample photo
              </button>
            </div>
            <Fault text={unread} />
            <Fault text={FIELDS.map((f) => faultOf(error, f)).find(Boolean) ?? otherFault(error, FIELDS)} />
            <Choice
              label="Paper"
              value={paper}
              options={PAPERS}
              onChange={(p) => {
                setPaper(p);
                if (photo) measure(photo.blob, { paper: p });
              }}
            />
            <Amount
              label="Cookie thickness"
              kind="length"
              value={thickness_mm}
              field="thickness_mm"
              onSave={(mm) => {
                setThickness(mm);
                if (photo) measure(photo.blob, { thickness_mm: mm });
                return Promise.resolve();
              }}
            />
            {showsCorners ? (
              <button
                type="button"
                className="btn btn-main w-full"
                onClick={() => {
                  const laid = corners ?? START;
                  setCorners(laid);
                  measure(photo.blob, { corners: laid });
                }}
              >
                Measure
              </button>
            ) : null}
          </div>
        </Part>
        {found && !isPending ? (
          <>
            {found.notes.length > 0 ? (
              <Part title="Check this">
                <ul className="space-y-1">
                  {found.notes.map((n) => (
                    <li key={n.text}>
                      <Says of={n} />.
                    </li>
                  ))}
                </ul>
              </Part>
            ) : null}
            <Part title="Which ones to use">
              <p className="mb-3 text-soft">
                {found.edge_colour
                  ? `Edges look ${EDGES.find((e) => e.value === found.edge_colour)?.label.toLowerCase() ?? ""}. `
                  : ""}
                Tap a cookie to leave it out. Tap a missed one to add it. Sizes are of the bottoms.
              </p>
              <div className="flex flex-wrap gap-2">
                <button
                  type="button"
                  className="btn btn-main"
                  disabled={used.length === 0}
                  onClick={() => void approve()}
                >
                  Use {used.length === 1 ? "this cookie" : `these ${used.length} cookies`}
                </button>
                <button type="button" className="btn" onClick={lay}>
                  Set the corners by hand
                </button>
              </div>
            </Part>
          </>
        ) : null}
      </TicketBox>
    </>
  );
}

const labCss = (c: { l: number; a: number; b: number } | null | undefined) =>
  c ? `lab(${c.l.toFixed(1)} ${c.a.toFixed(1)} ${c.b.toFixed(1)})` : "none";

const middle = (ring: readonly (readonly number[])[]) => {
  const xs = ring.map((p) => p[0] ?? 0);
  const ys = ring.map((p) => p[1] ?? 0);
  return [(Math.min(...xs) + Math.max(...xs)) / 2, (Math.min(...ys) + Math.max(...ys)) / 2] as const;
};

/** Arrow keys move the place that is pointed at by so much, mm. */
const AIM_MM = 3;
const AIMS: Record<string, Corner> = {
  ArrowLeft: [-AIM_MM, 0],
  ArrowRight: [AIM_MM, 0],
  ArrowUp: [0, -AIM_MM],
  ArrowDown: [0, AIM_MM],
};

/** The paper from above with what was found on it, and the figures of each piece. */
function Approval({
  found,
  out,
  onToggle,
  onPoint,
}: {
  found: BakePhoto;
  out: ReadonlySet<number>;
  onToggle(index: number): void;
  onPoint(x: number, y: number): void;
}) {
  const format = useFormat();
  const [w, h] = [found.paper_width_mm, found.paper_height_mm];
  const [aim, setAim] = useState<Corner>([w / 2, h / 2]);
  const name = (cutter: number | null | undefined) =>
    cutter == null ? "no match" : (found.cutters[cutter] ?? "");
  const several = found.cutters.length > 1 || found.pieces.some((p) => p.cutter == null);
  return (
    <div className="space-y-4">
      <svg
        viewBox={`0 0 ${w} ${h}`}
        className="mx-auto block w-full rounded-lg"
        style={{ maxWidth: `calc(62dvh * ${w / h})` }}
        role="group"
        aria-label="Paper from above, with the cookies found"
      >
        <image
          href={found.picture}
          width={w}
          height={h}
          preserveAspectRatio="none"
          className="peer cursor-crosshair outline-none"
          role="button"
          tabIndex={0}
          aria-label="Add a missed cookie: aim with the arrow keys, then press Enter"
          onKeyDown={(e) => {
            const by = AIMS[e.key];
            if (by)
              setAim(([x, y]) => [Math.min(w, Math.max(0, x + by[0])), Math.min(h, Math.max(0, y + by[1]))]);
            else if (e.key === "Enter") onPoint(...aim);
            else return;
            e.preventDefault();
          }}
          onClick={(e) => {
            const box = e.currentTarget.getBoundingClientRect();
            onPoint(((e.clientX - box.left) / box.width) * w, ((e.clientY - box.top) / box.height) * h);
          }}
        />
        <path
          d={`M${aim[0] - 5} ${aim[1]}h10M${aim[0]} ${aim[1] - 5}v10`}
          className="hidden stroke-warm peer-focus-visible:block"
          strokeWidth="0.9"
        />
        {found.pieces.map((p, i) => {
          const [x, y] = middle(p.seen_mm);
          const left = out.has(i);
          return (
            <g
              key={i}
              role="checkbox"
              tabIndex={0}
              aria-checked={!left}
              aria-label={`${i + 1}: cookie ${format.length(p.width_mm)} wide`}
              className="group cursor-pointer outline-none"
              onClick={() => onToggle(i)}
              onKeyDown={(e) => {
                if (e.key === " " || e.key === "Enter") {
                  e.preventDefault();
                  onToggle(i);
                }
              }}
            >
              <path
                d={outlinePath(p.seen_mm.map(([px = 0, py = 0]) => [px, py]))}
                className={`${left ? "fill-paper/60 stroke-soft" : "fill-transparent stroke-spruce"} group-focus-visible:stroke-warm`}
                strokeWidth={left ? 0.5 : 0.9}
                strokeDasharray={left ? "2 1.6" : undefined}
                strokeLinejoin="round"
              />
              {p.dark_mm.map(([dx = 0, dy = 0]) => (
                <circle
                  key={`${dx} ${dy}`}
                  cx={dx}
                  cy={dy}
                  r="4"
                  className="fill-none stroke-warm"
                  strokeWidth="0.8"
                />
              ))}
              <circle
                cx={x}
                cy={y}
                r="6.2"
                className={left ? "fill-stone-2 stroke-edge" : "fill-butter stroke-ink"}
                strokeWidth="0.5"
              />
              <text
                x={x}
                y={y + 2.6}
                textAnchor="middle"
                fontSize="7.4"
                fontWeight="600"
                className="on-butter"
              >
                {i + 1}
              </text>
            </g>
          );
        })}
      </svg>
      <div className="overflow-x-auto">
        <table className="w-full text-right [&_td]:pl-3 [&_th]:pl-3 [&_:first-child]:pl-0">
          <thead>
            <tr className="border-b border-rule text-fine text-soft">
              <th className="py-1 text-left font-normal">Cookie</th>
              {several ? <th className="py-1 text-left font-normal">Cutter</th> : null}
              <th className="py-1 font-normal">Width</th>
              <th className="py-1 font-normal">Spread</th>
              <th className="py-1 font-normal">Spread, other way</th>
              <th className="py-1 font-normal max-sm:hidden">Roundness</th>
              <th className="py-1 font-normal">Edge and middle color</th>
            </tr>
          </thead>
          <tbody>
            {found.pieces.map((p, i) => (
              <tr
                key={i}
                className={`num border-b border-rule last:border-0 ${out.has(i) ? "text-soft line-through" : ""}`}
              >
                <td className="py-1.5 text-left">{i + 1}</td>
                {several ? <td className="py-1.5 text-left font-sans">{name(p.cutter)}</td> : null}
                <td className="py-1.5">{format.length(p.width_mm)}</td>
                <td className="py-1.5">
                  {p.spread_percent == null ? "–" : `${number(p.spread_percent, 1, 1)}%`}
                </td>
                <td className="py-1.5">
                  {p.spread_across_percent == null ? "–" : `${number(p.spread_across_percent, 1, 1)}%`}
                </td>
                <td className="py-1.5 max-sm:hidden">{number(p.roundness, 2, 2)}</td>
                <td className="py-1.5">
                  <svg
                    viewBox="0 0 44 18"
                    width="44"
                    height="18"
                    className="ml-auto"
                    role="img"
                    aria-label={
                      p.edge && p.middle
                        ? `edge lightness ${number(p.edge.l, 0)}, middle lightness ${number(p.middle.l, 0)}`
                        : "not measured"
                    }
                  >
                    <rect
                      x="0.5"
                      y="0.5"
                      width="21"
                      height="17"
                      rx="3"
                      className="stroke-edge"
                      fill={labCss(p.edge)}
                    />
                    <rect
                      x="22.5"
                      y="0.5"
                      width="21"
                      height="17"
                      rx="3"
                      className="stroke-edge"
                      fill={labCss(p.middle)}
                    />
                  </svg>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </div>
  );
}
