import { expose } from "comlink";
import { type CheckOptions, checkModel, type Finding } from "@/core/check";
import { type StoredModel, trustStored } from "@/core/model";

/** A check away from the page one works on: what a process can do takes long to find out where it is tangled. */
const check = {
  findings: (stored: StoredModel, options: CheckOptions): Finding[] => checkModel(trustStored(stored), options),
};
export type CheckWorker = typeof check;

expose(check);
