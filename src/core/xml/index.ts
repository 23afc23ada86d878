export { escapeAttribute, escapeText } from "./escape";
