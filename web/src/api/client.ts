/** The typed way to the server. Types come from `schema.ts`, which is made from the server's own description. */
import createClient from "openapi-fetch";
import { BASE } from "./base";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Job = Schemas["JobView"];
export type JobBody = Schemas["JobBody"];
export type LotBody = Schemas["LotBody"];
export type Plan = Schemas["PlanView"];
export type Kitchen = Schemas["KitchenView"];
export type KitchenBody = Schemas["KitchenBody"];
export type Formula = Schemas["FormulaView"];
export type FormulaBody = Schemas["FormulaBody"];
export type Ingredient = Schemas["IngredientView"];
export type IngredientBody = Schemas["IngredientBody"];
export type Beside = Schemas["BesideView"];
export type Character = Schemas["CharacterView"];
export type Judgement = Schemas["JudgementView"];
export type Lever = Schemas["LeverBody"];
export type Pulled = Schemas["PulledView"];
export type LineChange = Schemas["LineChangeView"];
export type Version = Schemas["VersionView"];
export type Mixing = Schemas["MixingView"];
export type MixNoteBody = Schemas["MixNoteBody"];
export type BowlRequest = Schemas["BowlRequest"];
export type Correction = Schemas["CorrectionView"];
export type SizeRequest = Schemas["SizeRequest"];
export type Sized = Schemas["SizedView"];
export type Label = Schemas["LabelView"];
export type ReadRequest = Schemas["ReadRequest"];
export type Reading = Schemas["ReadingView"];
export type ReadLine = Schemas["ReadLineView"];
export type Answer = Schemas["AnswerBody"];
export type Cutter = Schemas["CutterView"];
export type NewCutter = Schemas["NewCutter"];
export type PhotoQuery = paths["/api/cutters/photo"]["post"]["parameters"]["query"];
export type PhotoFound = Schemas["PhotoView"];
export type BakePhotoQuery = paths["/api/jobs/{id}/photo"]["post"]["parameters"]["query"];
export type BakePhoto = Schemas["BakePhotoView"];
export type BakeRecord = Schemas["RecordView"];
export type RecordBody = Schemas["RecordBody"];
export type History = Schemas["HistoryView"];
export type LivePiece = Schemas["LiveView"];
export type PieceNow = Schemas["NowView"];
export type PutInBody = Schemas["PutInBody"];
export type ProbeBody = Schemas["ProbeBody"];
export type ReadingBody = Schemas["ReadingBody"];
export type Piece = Schemas["PieceWire"];
export type Window = Schemas["WindowView"];
export type Way = Schemas["WayView"];
export type Section = Schemas["SectionView"];
export type Trouble = paths["/api/jobs/{id}/cold/advice"]["get"]["parameters"]["query"]["trouble"];
export type Place = Schemas["PlaceView"];
export type TouchBody = Schemas["TouchBody"];
export type Problem = Schemas["Problem"];
export type FieldProblem = Schemas["FieldProblem"];

export const api = createClient<paths>({ baseUrl: BASE });

/** A refusal of the server, with its field faults. */
export class Refusal extends Error {
  readonly problem: Problem;
  constructor(problem: Problem) {
    super(problem.detail);
    this.name = "Refusal";
    this.problem = problem;
  }

  /** The fault of one field, if it is at fault. */
  of(field: string): FieldProblem | undefined {
    return this.problem.errors.find((e) => e.field === field || e.field.startsWith(`${field}[`));
  }
}

const AWAY: Problem = {
  title: "no answer",
  status: 0,
  detail: "No answer from the server. What you typed stays here. Try again once it’s back.",
  errors: [],
};

/** The revision that a change is made from, as the server takes it (RFC 9110, 13.1.1). */
export const madeFrom = (revision: number | null | undefined): { headers?: { "If-Match": string } } =>
  revision == null ? {} : { headers: { "If-Match": `"${revision}"` } };

/** The data of an answer, or its refusal thrown. */
export async function settled<T>(
  answer: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  let given;
  try {
    given = await answer;
  } catch {
    throw new Refusal(AWAY);
  }
  if (given.response.ok) return given.data as T;
  const problem = given.error as Partial<Problem> | undefined;
  throw new Refusal({
    title: problem?.title ?? "refused",
    status: given.response.status,
    detail: problem?.detail ?? `The server answered ${given.response.status}.`,
    errors: problem?.errors ?? [],
    ...(problem?.current === undefined ? {} : { current: problem.current }),
    ...(problem?.revision === undefined ? {} : { revision: problem.revision }),
  });
}
