/** The view the station opens with, loaded together. */
export { Shape } from "./Shape";
export { ShapeStation } from "./ShapeNav";
