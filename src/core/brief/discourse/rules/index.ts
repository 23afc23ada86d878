import { alternatives } from "./alternatives";
import { answer } from "./answer";
import { arrival } from "./arrival";
import { condition } from "./condition";
import { ending } from "./ending";
import { inEveryCase } from "./inEveryCase";
import { notInTime } from "./late";
import { onceChosen } from "./onceChosen";
import { ordinal } from "./ordinal";
import { overAgain } from "./overAgain";
import { plain } from "./plain";
import { ranges } from "./ranges";
import { repeat } from "./repeat";
import type { TurnOfPhrase } from "./rule";
import { someCases } from "./someCases";
import { together } from "./together";
import { until } from "./until";

/** The turns of phrase a text is read by, in the order in which they are tried on a clause. */
export const turnsOfPhrase: readonly TurnOfPhrase[] = [
  inEveryCase,
  notInTime,
  answer,
  onceChosen,
  arrival,
  condition,
  ranges,
  someCases,
  ordinal,
  overAgain,
  until,
  repeat,
  ending,
  alternatives,
  together,
  plain,
];
