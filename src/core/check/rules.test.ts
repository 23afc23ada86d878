import { describe, expect, test } from "vitest";
import { readBpmn } from "../bpmn";
import { type Command, drawMissingPages, perform } from "../commands";
import { elementsOfType, type Model } from "../model";
import { expectOk, performAll } from "../testing/models";
import { randomProcess } from "../testing/randomProcess";
import { checkModel, type Finding, keyOf, levelOf, newFindings, rules, shippedLevel, verdictOf, waiverFor } from ".";

const bpmn = 'xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL"';
const modelOf = (content: string): Model => {
  const inner = content.includes("<process") ? content : `<process id="p">${content}</process>`;
  return drawMissingPages(expectOk(readBpmn(`<definitions ${bpmn} targetNamespace="urn:q">${inner}</definitions>`)));
};
const flow = (from: string, to: string, more = "") =>
  `<sequenceFlow id="${from}-${to}" sourceRef="${from}" targetRef="${to}">${more}</sequenceFlow>`;
const task = (id: string, more = "", name = `Check part ${id}`) => `<task id="${id}" name="${name}"${more}/>`;
const event = (tag: string, id: string, trigger: string, more = "", inner = "") =>
  `<${tag} id="${id}" name="${id} came"${more}><${trigger}EventDefinition${inner}/></${tag}>`;
const condition = (words: string) => `<conditionExpression>${words}</conditionExpression>`;
const inside = (content: string, more = "", tag = "subProcess") =>
  `<${tag} id="u" name="Inspect on site"${more}>${content}</${tag}>`;
const link = (tag: string, id: string, name: string) =>
  `<${tag} id="${id}" name="${name}"><linkEventDefinition name="${name}"/></${tag}>`;
const pools = (flows: string, process: string) =>
  `<collaboration id="c"><participant id="q" processRef="p"/><participant id="h" name="Household"/>${flows}</collaboration><process id="p">${process}</process>`;

/** Two steps one after the other, and what each does with the rated power. */
const handled = (first: string, does: string, second: string, then: string) => {
  const step = (id: string, use: string) =>
    `<task id="${id}" name="Check part ${id}">${use && `<ioSpecification id="${id}.io">${use === "reads" ? `<dataInput id="${id}.i"/>` : `<dataOutput id="${id}.o"/>`}<inputSet id="${id}.is">${use === "reads" ? `<dataInputRefs>${id}.i</dataInputRefs>` : ""}</inputSet><outputSet id="${id}.os">${use === "writes" ? `<dataOutputRefs>${id}.o</dataOutputRefs>` : ""}</outputSet></ioSpecification>`}${use === "reads" ? `<dataInputAssociation id="${id}.r"><sourceRef>power</sourceRef><targetRef>${id}.i</targetRef></dataInputAssociation>` : ""}${use === "writes" ? `<dataOutputAssociation id="${id}.w"><sourceRef>${id}.o</sourceRef><targetRef>power</targetRef></dataOutputAssociation>` : ""}</task>`;
  return `<property id="power" name="rated power"/><startEvent id="s"/>${step(first, does)}${step(second, then)}<endEvent id="e"/>${flow("s", first)}${flow(first, second)}${flow(second, "e")}`;
};

/** A business rule task that decides by a table with some outcomes, and a gateway behind it with two answers. */
const decided = (outcomes: readonly string[], one: string, other: string, needs: readonly string[] = []) =>
  `<businessRuleTask id="r" name="Choose the inspection"><extensionElements xmlns:lln="urn:lucid-lane:bpmn:1"><lln:decides file="f" decision="which" name="inspection" result="inspection" answers="listed"/>${outcomes.map((is) => `<lln:answer is="${is}"/>`).join("")}${needs.map((data) => `<lln:needs data="${data}"/>`).join("")}</extensionElements></businessRuleTask><exclusiveGateway id="d" name="Which inspection?"/>${flow("r", "d")}${task("a")}${task("b")}<sequenceFlow id="d-a" sourceRef="d" targetRef="a" name="${one}"/><sequenceFlow id="d-b" sourceRef="d" targetRef="b" name="${other}"/>`;

const found = (rule: string, content: string) =>
  checkModel(modelOf(content), { profile: "hand-off" })
    .filter((finding) => finding.rule === rule)
    .flatMap((finding) => finding.elements);

/** The rule, where it finds something, a model with the fault, and the same without it. Clauses stand at the rules. */
describe("each rule finds its case, and only that", () => {
  test.each<[rule: string, at: string, wrong: string, right: string]>([
    [
      "link-partner",
      "l",
      link("intermediateThrowEvent", "l", "A"),
      link("intermediateThrowEvent", "l", "A") + link("intermediateCatchEvent", "k", "A"),
    ],
    [
      "link-partner",
      "k",
      link("intermediateThrowEvent", "l", "A") +
        link("intermediateCatchEvent", "k", "A") +
        link("intermediateCatchEvent", "k2", "A"),
      link("intermediateThrowEvent", "l", "A") +
        link("intermediateCatchEvent", "k", "A") +
        link("intermediateCatchEvent", "k2", "B") +
        link("intermediateThrowEvent", "l2", "B"),
    ],
    [
      "decision-input-missing",
      "r",
      decided(["a"], "a", "b", ["rated power"]),
      `<property id="x" name="rated power"/>${decided(["a"], "a", "b", ["rated power"])}`,
    ],
    ["data-not-written", "a", handled("a", "reads", "b", "writes"), handled("a", "writes", "b", "reads")],
    ["data-not-read", "a", handled("a", "writes", "b", ""), handled("a", "writes", "b", "reads")],
    [
      "answer-not-decided",
      "d-b",
      decided(["none", "full"], "none", "visit"),
      decided(["none", "full"], "none", "full"),
    ],
    [
      "answer-not-decided",
      "d",
      decided(["none", "full", "visit"], "none", "full"),
      decided(["none", "full"], "None ", "full"),
    ],
    ["sub-process-start", "i", inside(event("startEvent", "i", "message")), inside('<startEvent id="i"/>')],
    [
      "sub-process-start",
      "u",
      inside('<startEvent id="i"/>', ' triggeredByEvent="true"'),
      inside(event("startEvent", "i", "message"), ' triggeredByEvent="true"'),
    ],
    [
      "event-sub-process-flows",
      "u",
      `${task("a")}${inside(event("startEvent", "i", "message"), ' triggeredByEvent="true"')}${flow("a", "u")}`,
      `${task("a")}${inside(event("startEvent", "i", "message"), ' triggeredByEvent="true"')}`,
    ],
    [
      "cancel-outside-transaction",
      "o",
      inside(event("endEvent", "o", "cancel")),
      inside(event("endEvent", "o", "cancel"), "", "transaction"),
    ],
    [
      "compensation-handler",
      "b",
      task("a") + event("boundaryEvent", "b", "compensate", ' attachedToRef="a"'),
      `${task("a")}${event("boundaryEvent", "b", "compensate", ' attachedToRef="a"')}${task("r", ' isForCompensation="true"')}<association id="x" sourceRef="b" targetRef="r"/>`,
    ],
    [
      "compensation-handler",
      "r",
      `${task("a")}${task("r", ' isForCompensation="true"')}${flow("a", "r")}`,
      `${task("a")}${task("r", ' isForCompensation="true"')}`,
    ],
    [
      "ad-hoc-content",
      "i",
      inside('<startEvent id="i"/>', "", "adHocSubProcess"),
      inside(task("a"), "", "adHocSubProcess"),
    ],
    [
      "condition-ignored",
      "g-a",
      `<parallelGateway id="g"/>${task("a")}${flow("g", "a", condition("x"))}`,
      `<exclusiveGateway id="g"/>${task("a")}${flow("g", "a", condition("x"))}`,
    ],
    [
      "condition-ignored",
      "g-a",
      `<exclusiveGateway id="g" default="g-a"/>${task("a")}${flow("g", "a", condition("x"))}`,
      `<exclusiveGateway id="g" default="g-a"/>${task("a")}${flow("g", "a")}`,
    ],
    [
      "throw-without-catch",
      "o",
      inside(event("endEvent", "o", "error")),
      inside(event("endEvent", "o", "error")) + event("boundaryEvent", "b", "error", ' attachedToRef="u"'),
    ],
    [
      "throw-without-catch",
      "b",
      inside('<startEvent id="i"/>') + event("boundaryEvent", "b", "escalation", ' attachedToRef="u"'),
      inside(event("endEvent", "o", "escalation")) + event("boundaryEvent", "b", "escalation", ' attachedToRef="u"'),
    ],
    [
      "message-never-sent",
      "r",
      pools('<messageFlow id="m" sourceRef="q" targetRef="h"/>', '<receiveTask id="r" name="Wait for papers"/>'),
      pools('<messageFlow id="m" sourceRef="h" targetRef="r"/>', '<receiveTask id="r" name="Wait for papers"/>'),
    ],
    [
      "condition-in-words",
      "g-a",
      `<exclusiveGateway id="g"/>${task("a")}${flow("g", "a", condition("the feeder can carry it"))}`,
      `<exclusiveGateway id="g"/>${task("a")}${flow("g", "a", condition("1 > 0"))}`,
    ],
    [
      "timer-in-words",
      "i",
      '<intermediateCatchEvent id="i"><timerEventDefinition><timeDuration>ten days</timeDuration></timerEventDefinition></intermediateCatchEvent>',
      '<intermediateCatchEvent id="i"><timerEventDefinition><timeDuration>P10D</timeDuration></timerEventDefinition></intermediateCatchEvent>',
    ],
    ["nothing-to-run", "a", '<serviceTask id="a" name="Store it"/>', '<userTask id="a" name="Store it"/>'],
    [
      "nothing-to-run",
      "a",
      '<scriptTask id="a" name="Store it"/>',
      '<scriptTask id="a" name="Store it"><script>1</script></scriptTask>',
    ],
    ["trigger-unnamed", "i", event("startEvent", "i", "message"), '<startEvent id="i"/>'],
    [
      "instances-uncounted",
      "a",
      '<task id="a" name="Read meter"><multiInstanceLoopCharacteristics/></task>',
      '<task id="a" name="Read meter"><multiInstanceLoopCharacteristics><loopCardinality>3</loopCardinality></multiInstanceLoopCharacteristics></task>',
    ],
    ["event-names-a-state", "e", '<endEvent id="e" name="Close the case"/>', '<endEvent id="e" name="Case closed"/>'],
    [
      "two-spellings",
      "l",
      '<laneSet id="ls"><lane id="l" name="Network engineer"/><lane id="m" name="Network engineers"/></laneSet>',
      '<laneSet id="ls"><lane id="l" name="Network engineer"/><lane id="m" name="Field crew"/></laneSet>',
    ],
    [
      "ends-alike",
      "e",
      '<endEvent id="e" name="Done"/><endEvent id="f" name="Done"/>',
      '<endEvent id="e" name="Done"/><endEvent id="f" name="Rejected"/>',
    ],
    [
      "inclusive-gateway",
      "g",
      `<inclusiveGateway id="g"/>${task("a")}${task("b")}${flow("g", "a")}${flow("g", "b")}`,
      `<exclusiveGateway id="g"/>${task("a")}${task("b")}${flow("g", "a")}${flow("g", "b")}`,
    ],
  ])("%s at %s", (rule, at, wrong, right) => {
    expect(found(rule, wrong)).toContain(at);
    expect(found(rule, right)).toEqual([]);
  });

  test("flow-backwards: a step moved before the one it follows; a loop may lead back", () => {
    const row = modelOf(
      `<startEvent id="s" name="Order came"/>${task("a")}${task("b")}${flow("s", "a")}${flow("a", "b")}${flow("b", "a")}`,
    );
    const backwards = (model: Model) =>
      checkModel(model)
        .filter((one) => one.rule === "flow-backwards")
        .flatMap((one) => one.elements);
    expect(backwards(row)).toEqual([]);
    const shape = [...row.shapes].find((one) => one.element === "s");
    const moved = performAll(row, {
      type: "resize",
      diagram: shape?.diagram ?? "",
      id: "s",
      bounds: { x: 3000, y: 100, width: 36, height: 36 },
    });
    expect(backwards(moved)).toEqual(["s-a"]);
  });
});

/** What was found, told apart by rule and place; a repair that brings a finding anew only moves the fault. */
describe("a repair mends, and brings nothing new", () => {
  const every = (model: Model) => checkModel(model, { profile: "hand-off" });
  const trouble = (model: Model) => every(model).filter(({ severity }) => severity !== "advice");
  /** A lane whose only step was a mistake has none when that is gone, and a new flow may have to cross others. */
  const isBound = ({ rule, group }: Finding, commands: readonly Command[]) =>
    group === "layout" || (rule === "empty-lane" && commands.some(({ type }) => type === "delete"));
  const check = (model: Model) => {
    const before = every(model);
    let tried = 0;
    // Whether tidying helps is seen when it is looked at: a tangle of flows crosses wherever its steps stand.
    for (const finding of before.filter(({ group }) => group !== "layout"))
      for (const { label, commands } of finding.repairs ?? []) {
        const mended = performAll(model, ...commands);
        const after = every(mended);
        expect(after.map(keyOf), `${finding.rule}: ${label.text}`).not.toContain(keyOf(finding));
        expect(
          newFindings(before, after)
            .filter((one) => !isBound(one, commands))
            .map(({ rule, message }) => `${rule}: ${message}`),
          `${finding.rule}: ${label.text}`,
        ).toEqual([]);
        expect(trouble(mended).length, finding.rule).toBeLessThanOrEqual(trouble(model).length);
        tried++;
      }
    return tried;
  };
  test("on models as people draw them, spoilt here and there", () => {
    let tried = 0;
    for (let seed = 1; seed <= 25; seed++) {
      const model = randomProcess({ seed, nodes: 12, lanes: 2, wild: seed % 2 === 0 });
      const flows = elementsOfType(model, "sequenceFlow");
      const gone = flows[seed % flows.length];
      const spoilt = gone ? perform(model, { type: "delete", ids: [gone.id] }) : undefined;
      tried += check(spoilt?.ok ? spoilt.value.model : model);
    }
    expect(tried).toBeGreaterThan(20);
  });
  test.each<[name: string, content: string, repairs: readonly string[]]>([
    [
      "no-default",
      `<startEvent id="s" name="Order came"/><exclusiveGateway id="g" name="Enough?"/>${task("a")}${task("b")}${flow("s", "g")}${flow("g", "a", condition("parts > 3"))}${flow("g", "b", condition("parts &lt;= 3"))}`,
      ["Make “Check part a” the default", "Make “Check part b” the default"],
    ],
    [
      "no-default",
      `<startEvent id="s" name="Order came"/><exclusiveGateway id="g" name="Enough?"/>${task("a")}${task("b")}${flow("s", "g")}${flow("g", "a", condition("parts > 3"))}${flow("g", "b")}`,
      ["Make “Check part b” the default"],
    ],
    [
      "deadlock",
      `<startEvent id="s" name="Order came"/><exclusiveGateway id="g" name="Enough?"/>${task("a")}${task("b")}<parallelGateway id="j"/><endEvent id="e"/>${flow("s", "g")}${flow("g", "a")}${flow("g", "b")}${flow("a", "j")}${flow("b", "j")}${flow("j", "e")}`,
      ["Let it wait for none: each goes on by itself"],
    ],
    [
      "lack-of-synchronization",
      `<startEvent id="s" name="Order came"/><parallelGateway id="g"/>${task("a")}${task("b")}<exclusiveGateway id="j"/><endEvent id="e"/>${flow("s", "g")}${flow("g", "a")}${flow("g", "b")}${flow("a", "j")}${flow("b", "j")}${flow("j", "e")}`,
      ["Let it wait for all of them"],
    ],
  ])("%s, case %#", (rule, content, repairs) => {
    const model = modelOf(content);
    const finding = every(model).find((one) => one.rule === rule);
    expect(finding?.repairs?.map(({ label }) => label.text)).toEqual(repairs);
    check(model);
  });
  test("a case that is stuck says what it waits for, and where that would come", () => {
    const model = modelOf(
      `<startEvent id="s" name="Order came"/><exclusiveGateway id="g" name="Enough?"/>${task("a")}${task("b")}<parallelGateway id="j"/><endEvent id="e"/>${flow("s", "g")}${flow("g", "a")}${flow("g", "b")}${flow("a", "j")}${flow("b", "j")}${flow("j", "e")}`,
    );
    const stuck = every(model).find((one) => one.rule === "deadlock");
    const passed = stuck?.witness?.includes("a") ? "a" : "b";
    const other = passed === "a" ? "b" : "a";
    expect(stuck?.awaited).toEqual([`${other}-j`]);
    expect(stuck?.message).toContain(`waits there for what would come from “Check part ${other}”`);
  });
});

describe("profiles", () => {
  const model = modelOf(`${task("a")}<exclusiveGateway id="g" name="Enough?"/>${flow("a", "g")}`);
  const rulesFound = (profile: "draft" | "review" | "hand-off") =>
    new Set(checkModel(model, { profile }).map((one) => one.rule));
  test("a draft is not asked for roles, a review is; only a hand-off is asked for what machines need", () => {
    expect(rulesFound("draft").has("no-role")).toBe(false);
    expect(rulesFound("review").has("no-role")).toBe(true);
    for (const rule of rules.filter((one) => one.group === "automation")) {
      expect(shippedLevel(rule, "review")).toBe("off");
      expect(shippedLevel(rule, "hand-off")).not.toBe("off");
    }
  });
  test("behaviour is asked in every profile", () => {
    for (const rule of rules.filter((one) => one.group === "behaviour"))
      for (const profile of ["draft", "review", "hand-off"] as const)
        expect(levelOf(rule, profile)).toBe(rule.severity);
  });
  test("a workspace can make a rule stricter, or not ask it", () => {
    const adapted = (level: "error" | "off") =>
      checkModel(model, { adaption: { review: { "no-role": level } } }).filter((one) => one.rule === "no-role");
    expect(adapted("error").map((one) => one.severity)).toEqual(["error"]);
    expect(adapted("off")).toEqual([]);
  });
});

describe("a waiver ends when its element changes in what it was about", () => {
  const model = modelOf(`<startEvent id="s" name="Order came"/>${task("a")}${flow("s", "a")}`);
  const finding = checkModel(model).find((one) => one.rule === "no-role");
  const waiver = {
    finding: finding ? keyOf(finding) : "",
    about: finding?.about ?? "",
    reason: "Decided later",
    member: "Mara",
    at: "2026-11-25",
  };
  const stillHolds = (changed: Model) => {
    const now = checkModel(changed).find((one) => one.rule === "no-role");
    return now !== undefined && waiverFor(now, [waiver]) !== undefined;
  };
  test("it holds while nothing changes, and where the step is only renamed or moved", () => {
    expect(stillHolds(model)).toBe(true);
    expect(stillHolds(performAll(model, { type: "rename", id: "a", name: "Order meter" }))).toBe(true);
    const diagram = [...model.diagrams][0]?.id ?? "";
    expect(stillHolds(performAll(model, { type: "tidy", diagram }))).toBe(true);
  });
  test("it ends when the step becomes another kind", () => {
    const changed = performAll(model, { type: "retype", id: "a", to: "userTask" });
    expect(stillHolds(changed)).toBe(false);
    expect(verdictOf(checkModel(changed), [waiver]).waived).toEqual([]);
  });
  test("a name that was accepted is accepted as long as it is the same", () => {
    const named = modelOf(task("a", "", "Verification of capacity"));
    const about = checkModel(named).find((one) => one.rule === "verb-and-object");
    const accepted = { ...waiver, finding: about ? keyOf(about) : "", about: about?.about ?? "" };
    const renamed = performAll(named, { type: "rename", id: "a", name: "Verification of the feeder" });
    const after = checkModel(renamed).find((one) => one.rule === "verb-and-object");
    expect(about && waiverFor(about, [accepted])).toBeDefined();
    expect(after && waiverFor(after, [accepted])).toBeUndefined();
  });
});
