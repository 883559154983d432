/** The station’s other views, loaded together. */
export { Change } from "./Change";
export { LabelView } from "./LabelView";
export { Mix } from "./Mix";
export { Size } from "./Size";
export { Versions } from "./Versions";
