import type { CaseData } from "../feel";
import type { Element, Id, Model } from "../model";
import { loopOf, type Place, type Play, type World } from "../tokens";
import type { Choosing } from "./choosing";
import { itemName, outputList } from "./collections";
import { processOfScope } from "./courses";
import { dataIn, merged } from "./dataInScope";
import type { CaseState, LiveCase, LiveEvent, Wait, WaitKind } from "./liveCase";
import { storesOf, writtenBy } from "./stores";

/** What a case is run with. */
export interface Running {
  readonly world: World;
  readonly choosing: Choosing;
  /** Whose clock dates without a zone are read on. */
  readonly zone: string;
  /** Milliseconds since 1970. */
  readonly now: number;
}

/** What stands beside the tokens of a case: its data, what is waited for, and what has happened since it was opened. */
export abstract class CaseBook {
  readonly events: LiveEvent[] = [];

  /** Names of the signals that were thrown since it was opened: other cases hear them too. */
  readonly thrown: string[] = [];

  /** Elements that were waited at since it was opened, whether or not they came to anything. */
  readonly reached = new Set<Id>();

  protected readonly open = new Map<number, Wait>();

  protected readonly passed: Set<string>;

  protected readonly ownData: Map<string, CaseData>;

  protected held: CaseData;

  protected nextWait: number;

  protected steps: number;

  protected standing: CaseState;

  protected failure: LiveCase["failure"];

  protected constructor(
    protected running: Running,
    readonly play: Play,
    readonly process: Id,
    from: Omit<LiveCase, "tokens" | "process">,
  ) {
    for (const wait of from.waits) this.open.set(wait.id, { ...wait });
    this.passed = new Set(from.happened);
    this.ownData = new Map(Object.entries(from.own));
    this.held = from.data;
    this.nextWait = from.next;
    this.steps = from.steps;
    this.standing = from.state;
    this.failure = from.failure;
  }

  saved(): LiveCase {
    return {
      process: this.process,
      tokens: this.play.saved(),
      data: this.held,
      own: Object.fromEntries(this.ownData),
      waits: [...this.open.values()],
      happened: [...this.passed],
      next: this.nextWait,
      steps: this.steps,
      state: this.standing,
      ...(this.failure && { failure: this.failure }),
    };
  }

  /** The time it is; only whoever runs it lets it pass. */
  get now(): number {
    return this.running.now;
  }

  set now(moment: number) {
    this.running = { ...this.running, now: moment };
  }

  /** The nodes that tokens stand before, or that are under way. */
  standingAt(): Id[] {
    return this.play
      .places()
      .flatMap((place) => place.waiting().flatMap((node) => place.scope.net.nodes[node]?.id ?? []));
  }

  get state(): CaseState {
    return this.standing;
  }

  get data(): CaseData {
    return this.held;
  }

  get waits(): Iterable<Wait> {
    return this.open.values();
  }

  wait(id: number): Wait | undefined {
    return this.open.get(id);
  }

  /** The element that is waited for: of a race the event. */
  elementOf(wait: Wait): { readonly element: Element; readonly model: Model } | undefined {
    const place = this.play.placeAt(wait.at);
    const element = place?.scope.model.elements.get(wait.event ?? wait.node);
    return place && element ? { element, model: place.scope.model } : undefined;
  }

  /** The data that is seen where something is waited for. */
  dataAt(wait: Wait): CaseData {
    return dataIn(this.held, this.ownData, this.play.placeAt(wait.at), wait.own);
  }

  protected readonly retried = new Map<string, number>();

  protected needed(id: number): Wait {
    const wait = this.open.get(id);
    if (!wait) throw new RangeError(`Nothing of the number ${id} is waited for in this case.`);
    return wait;
  }

  protected placeOf(wait: Wait): Place {
    const place = this.play.placeAt(wait.at);
    if (!place) throw new RangeError(`There is no scope “${wait.at}” under way in this case.`);
    return place;
  }

  protected nodeOf = (place: Place, wait: Wait): number => place.scope.nodeAt.get(wait.node) ?? -1;

  protected tell(kind: LiveEvent["kind"], wait: Wait, reason?: string): void {
    const place = this.play.placeAt(wait.at);
    const element = wait.event ?? wait.node;
    const isWriting = kind === "complete" && place && storesOf(place.scope.model, element).length > 0;
    this.note(kind, place, element, {
      ...(isWriting && { data: writtenBy(place.scope.model, element, this.dataAt(wait)) }),
      wait: wait.id,
      ...(wait.instance !== undefined && { instance: wait.instance }),
      ...(reason !== undefined && { reason }),
    });
  }

  protected note(kind: LiveEvent["kind"], place: Place | undefined, element: Id, more: Partial<LiveEvent> = {}): void {
    const process = place && processOfScope(place.scope.model, place.scope.net.scope);
    this.events.push({
      kind,
      at: this.running.now,
      element,
      ...(process !== undefined && { process }),
      ...(place && { scope: place.key }),
      ...more,
    });
  }

  /** Values that come with what is done: of an instance its own, or gathered in the list of all. */
  protected take(wait: Wait, place: Place, element: Element, values: CaseData): void {
    if (Object.keys(values).length === 0) return;
    const { model } = place.scope;
    const loop = loopOf(model, element.id);
    const output = loop && itemName(model, loop, "outputDataItem");
    const list = loop && outputList(model, loop);
    let rest = values;
    if (wait.instance !== undefined && output !== undefined && list !== undefined && output in values) {
      const { [output]: given, ...others } = values;
      const known = this.held[list];
      const gathered = Array.isArray(known) ? [...known] : [];
      gathered[wait.instance] = given;
      this.held = { ...this.held, [list]: Array.from(gathered, (one) => one ?? null) };
      rest = others;
    }
    // What an instance around has of its own is changed there, the rest in the case.
    let toCase = rest;
    for (let here: Place | undefined = place; here; here = here.outer) {
      const held = this.ownData.get(here.key);
      if (!held) continue;
      const mine = Object.fromEntries(Object.entries(toCase).filter(([name]) => name in held));
      if (Object.keys(mine).length === 0) continue;
      this.ownData.set(here.key, merged(held, mine));
      toCase = Object.fromEntries(Object.entries(toCase).filter(([name]) => !(name in held)));
    }
    this.held = merged(this.held, toCase);
  }

  protected isStandingAt(place: Place, node: number): boolean {
    const { net } = place.scope;
    if (place.state[net.flows.length + node] !== 0) return true;
    return net.nodes[node]?.ins.some((flow) => place.state[flow] !== 0) ?? false;
  }

  protected abort(wait: Wait): void {
    this.open.delete(wait.id);
    if (wait.kind === "work" || wait.kind === "service") this.tell("abort", wait);
  }

  protected waitsAt(place: Place, node: number): Wait[] {
    const id = place.scope.net.nodes[node]?.id;
    return [...this.open.values()].filter((wait) => wait.at === place.key && wait.node === id);
  }

  protected set(place: Place, node: number, kind: WaitKind, more: Partial<Wait> = {}): Wait {
    const wait: Wait = {
      id: this.nextWait++,
      kind,
      at: place.key,
      node: place.scope.net.nodes[node]?.id as Id,
      since: this.running.now,
      ...more,
    };
    this.open.set(wait.id, wait);
    this.reached.add(wait.event ?? wait.node);
    return wait;
  }
}
