/** The station’s other views, loaded together. */
export { EvennessPage } from "./EvennessPage";
export { PhotoPage } from "./PhotoPage";
