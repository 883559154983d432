/** The station’s other views, loaded together. */
export { GoesWrong } from "./GoesWrong";
export { InTheCold } from "./InTheCold";
export { Learnt } from "./Learnt";
export { Ways } from "./Ways";
