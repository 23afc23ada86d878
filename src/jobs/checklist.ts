import { type Checklist, checklistOf } from "@/core/handoff";
import { type Job, needs } from "./job";

/** What a machine needs of each element of a model, and whether it is there. */
export const checklist: Job<object, Checklist> = (models) => checklistOf(needs(models, "model"));
