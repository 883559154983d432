/** The view the station opens with, loaded together. */
export { Dough, DoughStation } from "./Dough";
