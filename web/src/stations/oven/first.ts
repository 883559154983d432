/** The view the station opens with, loaded together. */
export { Oven } from "./Oven";
export { OvenStation } from "./OvenNav";
