export { type Collaboration, collaborationsOf, type LeftOut, type StuckRun } from "./explore";
