/** A bake that is being written down. */
import type { BakePhotoQuery, Schemas } from "../../api/client";
import { useKept } from "../../kit/kept";

export type Conditions = Schemas["ConditionsBody"];

export interface Draft {
  widths: string;
  thicknesses: string;
  minutes: string;
  notes: string;
  edge: Schemas["EdgeColour"];
  /** Widths from a photo, in place of those typed. */
  measured_mm?: readonly number[] | undefined;
  /** The tray of a run that it was. */
  of_tray?: Schemas["TrayOfRun"] | undefined;
  /** What was not as planned. */
  other: Partial<Conditions>;
}

export const EMPTY: Draft = {
  widths: "",
  thicknesses: "",
  minutes: "",
  notes: "",
  edge: "just_golden",
  other: {},
};

/** Half typed, it stays while somebody looks something up. */
export const useDraft = (job: number) => useKept<Draft>(`bake ${job}`, EMPTY);

/** The photo that a draft was measured by, kept with the record once there is one; gone when the page is loaded anew. */
export const approved = new Map<number, { photo: Blob; query: BakePhotoQuery }>();
