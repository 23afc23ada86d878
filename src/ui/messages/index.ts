export { en as text } from "./en";
