import { fieldsOfProcess, rowsOf } from "../../data";
import { say } from "../../messages";
import { called, dataInReach, decidedBy, elementsOfType, fieldUsesOf, processOf } from "../../model";
import type { Rule } from "../finding";

/** What a decision needs has to be there where a business rule task decides by it (DMN 1.5, 6.3.11: its inputs are given). */
export const decisionInputMissing: Rule = {
  id: "decision-input-missing",
  group: "automation",
  severity: "warning",
  wants: say`What a decision needs is data of the process.`,
  find: (model) =>
    elementsOfType(model, "businessRuleTask").flatMap((step) => {
      const by = decidedBy(step);
      if (!by || by.needs.length === 0) return [];
      const said = new Set(fieldUsesOf(step).flatMap((use) => (use.direction === "in" ? [use.field] : [])));
      const parts = fieldsOfProcess(model, processOf(model, step.id)?.id ?? "").flatMap((field) =>
        rowsOf(field).map((row) => row.field.name),
      );
      const there = new Set([...dataInReach(model, step.id), ...parts]);
      const missing = by.needs.filter((name) => !said.has(name) && !there.has(name));
      if (missing.length === 0) return [];
      return [
        {
          elements: [step.id],
          message: say`${called(model, step)} decides ${by.name}, which needs ${missing.join(", ")}, and no data here is called so. Add it to the data, or say in the tray which data it is.`,
        },
      ];
    }),
};
