import { writeBpmn } from "@/core/bpmn";
import { largeModel } from "@/core/testing/largeModel";

/** The file of a model of a wanted size. */
export const largeFile = (size: number) => writeBpmn(largeModel(size));
