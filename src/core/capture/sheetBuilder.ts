import type { Kind } from "../commands";
import { foldedName } from "../directory";
import { type Said, say } from "../messages";
import { type Id, isSubProcess, shapeOn } from "../model";
import type { Draft } from "./draft";
import { furnish } from "./list";
import type { Resolve, SheetLine } from "./readSheet";

interface Scope {
  readonly id: Id;
  readonly diagram: Id;
  readonly level: number;
}

/** Where a path leads on to whatever comes next: from a step, by a flow with a name; counted as they are met. */
interface OpenEnd {
  readonly count: number;
  readonly from: Id;
  readonly name: string;
  readonly isDefault: boolean;
}

const isEdge = (line: SheetLine) => typeof line.kind === "object" && line.kind.type === "boundaryEvent";

/** Draws a sheet from its lines, by the rules it is read by (see `StepRow`); what a path jumps to is joined at the end. */
export class SheetBuilder {
  readonly #steps = new Map<string, Id>();
  readonly #flows: { readonly end: OpenEnd; readonly to: Id | SheetLine; readonly diagram: Id }[] = [];
  readonly #lanes = new Map<string, Id>();
  #at = 0;
  #count = 0;
  #lines: readonly SheetLine[] = [];

  constructor(
    readonly draft: Draft,
    readonly resolve: Resolve,
  ) {}

  build(lines: readonly SheetLine[]): void {
    const { draft } = this;
    const process = [...draft.model.elements].find((element) => element.type === "process")?.id as Id;
    const diagram = [...draft.model.diagrams][0]?.id as Id;
    const head = lines.find((line) => line.kind === "process");
    // A process without a name keeps none: what the file is called is no name of it.
    if (head) draft.do({ type: "setField", id: process, field: "name", value: head.step || null });
    if (head?.guidance) draft.do({ type: "describe", id: process, text: head.guidance });
    this.#lines = lines.filter((line) => line.kind !== "process");
    this.#drawLanes(diagram);
    const scope = { id: process, diagram, level: 0 };
    while (this.#at < this.#lines.length) {
      const line = this.#lines[this.#at] as SheetLine;
      if (line.level > 0) this.#refuse(line, say`it is indented, but no step stands above it`);
      if (isEdge(line)) this.#refuse(line, say`an event at an edge stands indented below its step`);
      this.#column(scope, 0, []);
    }
    this.#connect();
  }

  /** All flows at last, when every step that one may jump to is there; a step's ways out keep the order of its paths. */
  #connect(): void {
    for (const { end, to, diagram } of this.#flows.sort((a, b) => a.end.count - b.end.count)) {
      const target =
        typeof to === "string"
          ? to
          : (this.#steps.get(to.step) ?? this.#refuse(to, say`there is no step with the number "${to.step}"`));
      const id = this.draft.newId("flow");
      const { from, name, isDefault } = end;
      this.draft.do({ type: "connect", diagram, id, source: from, target, ...(name && { name }) });
      if (isDefault) this.draft.do({ type: "setField", id: from, field: "default", value: id });
    }
  }

  /** A lane for each role of the process' own steps, in the order they are met; one without a name for steps nobody does. */
  #drawLanes(diagram: Id): void {
    const roles = this.#lines.filter((line) => typeof line.kind === "object").map((line) => line.by[0] ?? "");
    if (roles.every((role) => role === "")) return;
    const pool = this.draft.newId("participant");
    this.draft.do({ type: "place", diagram, id: pool, kind: { type: "participant" }, at: { x: 400, y: 200 } });
    let beside = pool;
    for (const role of roles) {
      const key = foldedName(role);
      if (this.#lanes.has(key)) continue;
      const id = this.draft.newId("lane");
      this.draft.do({ type: "addLane", diagram, id, beside });
      if (role) this.draft.do({ type: "tieLane", lane: id, role: this.resolve("role", role) });
      this.#lanes.set(key, id);
      beside = id;
    }
  }

  /** Lines of one level, as far as they go. Gives what leads on from them. */
  #column(scope: Scope, level: number, from: readonly OpenEnd[], above?: Id): readonly OpenEnd[] {
    let open = from;
    let last = above;
    for (let line = this.#lines[this.#at]; line && line.level >= level; line = this.#lines[this.#at]) {
      if (line.level > level) this.#refuse(line, say`it is indented further than what stands above it allows`);
      if (isEdge(line)) break;
      if (line.kind === "path" || line.kind === "main path") {
        open = this.#paths(
          scope,
          level,
          last ?? this.#refuse(line, say`a path needs a step above it that it leads out of`),
        );
        continue;
      }
      this.#at++;
      if (line.kind === "continues at") {
        for (const end of open) this.#flows.push({ end, to: line, diagram: scope.diagram });
        open = [];
      } else if (line.kind === "stops") open = [];
      else if (typeof line.kind === "object") {
        last = this.#step(scope, line, line.kind);
        for (const end of open) this.#flows.push({ end, to: last, diagram: scope.diagram });
        open = line.kind.type === "endEvent" ? [] : [this.#end(last)];
        this.#inside(scope, last, level + 1);
      }
    }
    return open;
  }

  #paths(scope: Scope, level: number, of: Id): readonly OpenEnd[] {
    const open: OpenEnd[] = [];
    for (let line = this.#lines[this.#at]; line?.level === level; line = this.#lines[this.#at]) {
      if (line.kind !== "path" && line.kind !== "main path") break;
      this.#at++;
      const end = this.#end(of, line);
      if (line.kind === "main path") return [...open, end];
      open.push(...this.#column(scope, level + 1, [end]));
    }
    return open;
  }

  /** What stands indented below a step: first its inside, if it is a sub-process, then the events at its edge. */
  #inside(scope: Scope, step: Id, level: number): void {
    const next = () => this.#lines[this.#at];
    const first = next();
    if (first && first.level === level && !isEdge(first) && isSubProcess(this.draft.element(step).type)) {
      const diagram = this.draft.newId("page");
      this.draft.do({ type: "addPage", id: diagram, element: step });
      const inner = { id: step, diagram, level };
      for (let line = next(); line?.level === level && !isEdge(line); line = next()) this.#column(inner, level, []);
    }
    for (let line = next(); line?.level === level && isEdge(line); line = next()) {
      this.#at++;
      const { kind } = line as SheetLine & { readonly kind: Kind };
      const id = this.draft.newId("boundaryEvent");
      this.draft.do({ type: "attach", diagram: scope.diagram, host: step, id, kind });
      this.#furnish(id, line);
      this.#column(scope, level, [this.#end(id)], id);
    }
  }

  #step(scope: Scope, line: SheetLine, kind: Kind): Id {
    const id = this.draft.newId(kind.type);
    const lane = scope.level === 0 ? this.#lanes.get(foldedName(line.by[0] ?? "")) : undefined;
    const bounds = lane && shapeOn(this.draft.model, scope.diagram, lane)?.bounds;
    const at = bounds ? { x: bounds.x + bounds.width / 2, y: bounds.y + bounds.height / 2 } : { x: 200, y: 200 };
    this.draft.do({ type: "place", diagram: scope.diagram, id, kind, at });
    this.#furnish(id, line);
    return id;
  }

  #furnish(id: Id, line: SheetLine): void {
    if (line.step) this.draft.do({ type: "rename", id, name: line.step });
    if (line.number) this.#steps.set(line.number, id);
    furnish(this.draft, id, line, this.resolve);
  }

  #end(from: Id, path?: SheetLine): OpenEnd {
    return { count: this.#count++, from, name: path?.step ?? "", isDefault: path?.isDefault === true };
  }

  #refuse(line: SheetLine, why: Said): never {
    return this.draft.refuse("sheet-structure", say`Row ${line.line} ("${line.step}") cannot be placed: ${why}.`);
  }
}
