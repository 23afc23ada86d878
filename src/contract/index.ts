/** What window and server say to each other, a file a stage. */
export { brief } from "./brief";
export { check } from "./check";
export { comments } from "./comments";
export { compare } from "./compare";
export type { AnswerOf, Contract, Done, Right, Thing } from "./contract";
export { decisions } from "./decisions";
export { directory } from "./directory";
export { evidence } from "./evidence";
export { files } from "./files";
export { finding } from "./find";
export { handbook } from "./handbook";
export { handoff } from "./handoff";
export { home } from "./home";
export { links } from "./links";
export { live } from "./live";
export { review } from "./review";
export { inVersion } from "./version";
export { walk } from "./walk";
