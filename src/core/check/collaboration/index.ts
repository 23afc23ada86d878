export { type Collaboration, collaborationsOf, type StuckRun } from "./explore";
