/** The station’s other views, loaded together. */
export { EvennessPage } from "./EvennessPage";
export { PhotoPage } from "./PhotoPage";
export { BookPage } from "./BookPage";
export { TrialsPage } from "./TrialsPage";
export { WhyPage } from "./WhyPage";
