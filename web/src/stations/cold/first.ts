/** The view the station opens with, loaded together. */
export { Cold } from "./Cold";
export { ColdStation } from "./ColdNav";
