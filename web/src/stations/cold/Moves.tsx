/** Moving a piece, taking it out for good, and the way back from both. */
import { capital } from "../../drawing/sentence";
import type { LivePiece } from "../../api/client";
import { useMovePiece, usePieceAct } from "../../api/cold";
import { Fault, otherFault } from "../../kit/Fault";
import { didFact } from "../../kit/said";
import { PLACES, placeWords } from "./words";

export function Moves({ piece, large = false }: { piece: LivePiece; large?: boolean }) {
  const move = useMovePiece();
  const act = usePieceAct();
  const here = piece.stays[piece.stays.length - 1]?.place;
  const size = large ? "min-h-14 text-lg" : "";
  return (
    <div>
      {large ? null : <p className="mb-2 text-soft">{capital(placeWords(piece))}.</p>}
      <div className="flex flex-wrap gap-2">
        {PLACES.filter((p) => p.value !== here).map((p) => (
          <button
            key={p.value}
            type="button"
            className={`btn ${size}`}
            disabled={move.isPending}
            onClick={() =>
              move.mutate(
                { id: piece.id, place: p.value },
                {
                  onSuccess: () =>
                    didFact(
                      `${piece.name} was moved ${p.value === "bench" ? "onto the bench" : `into the ${p.value}`}`,
                      () => act.mutateAsync({ id: piece.id, act: "unmove" }),
                    ),
                },
              )
            }
          >
            {p.value === "bench" ? "Onto the bench" : `Into the ${p.value}`}
          </button>
        ))}
        <button
          type="button"
          className={`btn ${size}`}
          disabled={act.isPending}
          onClick={() =>
            act.mutate(
              { id: piece.id, act: "end" },
              {
                onSuccess: () =>
                  didFact(`${piece.name} taken out`, () => act.mutateAsync({ id: piece.id, act: "reopen" })),
              },
            )
          }
        >
          Take it out to use
        </button>
        {piece.stays.length > 1 ? (
          <button
            type="button"
            className={`btn btn-quiet ${size}`}
            disabled={act.isPending}
            onClick={() => act.mutate({ id: piece.id, act: "unmove" })}
          >
            Undo the move
          </button>
        ) : null}
      </div>
      <Fault text={otherFault(move.error, []) ?? otherFault(act.error, [])} />
    </div>
  );
}
