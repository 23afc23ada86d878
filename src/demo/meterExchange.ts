import type { Id, Model } from "@/core/model";
import { handleExchange } from "./data";
import { Drawing } from "./drawing";
import { pool } from "./smallProcesses";

/**
 * An old meter is exchanged for one that counts both ways. It is drawn as beginners draw it: two things are done side by side and
 * meet in a join that waits for nobody, so that the household is told twice. Check finds that, Walk shows it.
 */
export function drawMeterExchange(start: Model, diagram: Id): Drawing {
  const draw = new Drawing(start, diagram);
  pool(draw, [
    ["lane-front-desk", { entry: "role-front-desk", name: "Front desk" }],
    ["lane-crew", { entry: "role-field-crew", name: "Field crew" }],
  ]);
  const desk = "lane-front-desk";
  draw.node("exchange-due", { type: "startEvent" }, desk, "Meter exchange due");
  draw.node("part", { type: "parallelGateway" }, desk, "");
  draw.node("order-meter", { type: "userTask" }, desk, "Order meter");
  draw.node("book-visit", { type: "userTask" }, "lane-crew", "Book visit");
  draw.node("meet", { type: "exclusiveGateway" }, desk, "");
  draw.node("notify-household", { type: "userTask" }, desk, "Notify household");
  draw.node("exchange-meter", { type: "manualTask" }, "lane-crew", "Exchange meter");
  draw.node("exchanged", { type: "endEvent" }, "lane-crew", "Meter exchanged");
  draw.chain("exchange-due", "part", "order-meter", "meet", "notify-household", "exchange-meter", "exchanged");
  draw.chain("part", "book-visit", "meet");
  draw.do({
    type: "useSystem",
    step: "book-visit",
    system: { entry: "system-crew-planner", name: "Crew planner" },
    use: "writes",
  });
  handleExchange(draw);
  draw.do({ type: "tidy", diagram });
  return draw;
}
