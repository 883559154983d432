/** The station’s other views, loaded together. */
export { BakeSheet } from "./BakeSheet";
export { FinishPage } from "./Finish";
export { Levers } from "./Levers";
export { TrayPage } from "./TrayPage";
