export { outlineOf } from "./outlineOf";
