import { nameSimilarity } from "../../directory";
import { say } from "../../messages";
import type { Id } from "../../model";
import type { Found, Rule } from "../finding";

/** By trial on names of roles and documents; no published value. */
const likely = 0.88;
const kinds = ["lane", "participant", "dataObjectReference", "dataStoreReference"] as const;

/** Lanes, data and stores whose names are likely two spellings of one thing; those of steps may well be alike. */
export const similarNames: Rule = {
  id: "two-spellings",
  group: "names",
  severity: "advice",
  wants: say`One thing has one spelling.`,
  find: (model) =>
    kinds.flatMap((kind): Found[] => {
      const first = new Map<string, Id>();
      for (const element of model.elements)
        if (element.type === kind && element.name?.trim() && !first.has(element.name.trim()))
          first.set(element.name.trim(), element.id);
      const names = [...first.keys()];
      return names.flatMap((one, at) =>
        names.slice(at + 1).flatMap((other): Found[] => {
          if (one === other || nameSimilarity(one, other) < likely) return [];
          return [
            {
              elements: [first.get(one) as Id, first.get(other) as Id],
              message: say`“${one}” and “${other}” are likely one thing in two spellings. Choose one of them.`,
            },
          ];
        }),
      );
    }),
};
