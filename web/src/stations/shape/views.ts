/** The station’s other views, loaded together. */
export { EvenView } from "./EvenView";
export { LogView } from "./LogView";
export { MadeView } from "./MadeView";
export { MarbledView } from "./MarbledView";
export { MixedView } from "./MixedView";
export { NestView, TrayView } from "./NestView";
export { PatternView } from "./PatternView";
export { PortionView } from "./PortionView";
