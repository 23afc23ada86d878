import "fake-indexeddb/auto";
import { cleanup, configure, render, screen, waitFor } from "@testing-library/react";
import userEvent, { type UserEvent } from "@testing-library/user-event";
import { expose, type Remote } from "comlink";
import { AppRouterContext, type AppRouterInstance } from "next/dist/shared/lib/app-router-context.shared-runtime";
import { PathnameContext, SearchParamsContext } from "next/dist/shared/lib/hooks-client-context.shared-runtime";
import { type ReactNode, useEffect, useState } from "react";
import { vi } from "vitest";
import { type Jobs, jobIn, jobModules } from "@/jobs";
import { Held } from "@/jobs/handover";
import type { JobWorker } from "@/jobs/worker";
import { hearFeed, localMember } from "@/server";
import { openWorkspace } from "@/server/testing/workspace";
import { untell } from "@/ui/controls/notices";
import { DecisionFilePage } from "@/ui/decisions/DecisionFilePage";
import { DecisionsPage } from "@/ui/decisions/DecisionsPage";
import { DirectoryPage } from "@/ui/directory/DirectoryPage";
import { FindPage } from "@/ui/find/FindPage";
import { HomePage } from "@/ui/home/HomePage";
import { forgetAnswers } from "@/ui/kernel/queries";
import { MembersPage } from "@/ui/members/MembersPage";
import { Providers } from "@/ui/shell/Providers";
import { type StageName, stageNamed } from "@/ui/stages/register";
import { StageView } from "@/ui/stages/StageView";
import { VersionShell } from "@/ui/stages/VersionShell";
import { WorkPage } from "@/ui/work/WorkPage";
import { POST as doUseCase } from "../api/do/[useCase]/route";
import { POST as exportPicture } from "../api/export/route";
import { POST as keepFile } from "../api/files/route";
import { POST as giveHandbook } from "../api/handbook/route";
import { POST as importFile } from "../api/import/route";
import { GET as downloadLog } from "../api/log/route";
import { POST as giveReport } from "../api/logs/report/route";
import { POST as keepLog, GET as logContent } from "../api/logs/route";

configure({
  // A whole page takes longer to appear than one of its parts, and longer still the first time on a busy machine.
  asyncUtilTimeout: 25_000,
  // What is waited for is looked for again and again; to print the whole page at each miss would be most of the time of a test.
  getElementError: (message, container) => {
    const error = new Error(`${message}\n\nThe page says: ${container.textContent?.slice(0, 2_000)}`);
    error.name = "TestingLibraryElementError";
    return error;
  },
});

/** What becomes of the next question that a window asks: the way there is lost, or the way back. */
export type Fate = "lost" | "unanswered";

/** A window on the application with its real server behind it, and no browser between: for what happens where the two meet. */
export interface Application {
  readonly user: UserEvent;
  readonly address: () => string;
  readonly goTo: (address: string) => void;
  /** Use cases that were asked for since the last look, in order. */
  readonly asked: () => string[];
  /** What becomes of the next question to a use case. */
  readonly next: (useCase: string, fate: Fate) => void;
  readonly close: () => Promise<void>;
}

/** The routes that take or give files. */
const fileRoutes: { readonly [asked: string]: (request: Request) => Promise<Response> } = {
  "POST /api/export": exportPicture,
  "POST /api/files": keepFile,
  "POST /api/handbook": giveHandbook,
  "POST /api/import": importFile,
  "GET /api/log": downloadLog,
  "GET /api/logs": logContent,
  "POST /api/logs": keepLog,
  "POST /api/logs/report": giveReport,
};

/** Opens an empty workspace, fills it, and shows a page of it. */
export async function openApplication(
  address: string,
  fill: () => Promise<unknown> = async () => {},
): Promise<Application> {
  await openWorkspace();
  await fill();
  const asked: string[] = [];
  const fates = new Map<string, Fate[]>();
  const underway = new Set<Promise<unknown>>();
  const answer = async (path: string, init: RequestInit) => {
    const [, name = ""] = /^\/api\/do\/(\w+)$/.exec(path) ?? [];
    asked.push(name);
    const fate = fates.get(name)?.shift();
    if (fate === "lost") throw new TypeError("no network");
    const { method = "GET" } = init;
    const sent = init.body instanceof Blob ? await bytesOf(init.body) : (init.body as string);
    const body = method === "GET" ? null : sent;
    const headers = { ...(init.headers as Record<string, string>), host: "localhost" };
    const request = new Request(`http://localhost${path}`, { method, body, headers });
    const ofFiles = fileRoutes[`${method} ${path.split("?")[0]}`];
    const response = ofFiles
      ? await ofFiles(request)
      : await doUseCase(request, { params: Promise.resolve({ useCase: name }) });
    if (fate === "unanswered") throw new TypeError("no network");
    return response;
  };
  standIns((path, init = {}) => {
    const answered = answer(path, init);
    underway.add(answered);
    answered.catch(() => undefined).finally(() => underway.delete(answered));
    return answered;
  });
  const place = new Place(address);
  render(
    <Located place={place}>
      <Providers nonce="" language="en">
        <Routed place={place} />
      </Providers>
    </Located>,
  );
  return {
    user: userEvent.setup({ delay: null }),
    address: () => place.address,
    goTo: place.goTo,
    asked: () => asked.splice(0),
    next: (useCase, fate) => void fates.set(useCase, [...(fates.get(useCase) ?? []), fate]),
    close: async () => {
      // What is still on its way arrives before the database goes.
      const state = screen.queryByTestId("saved-state");
      if (state)
        await waitFor(() => state.textContent === "Saved" || Promise.reject(new Error("not saved")), {
          timeout: 8_000,
        }).catch(() => undefined);
      untell();
      cleanup();
      forgetAnswers();
      // A question that is still being answered would open the database again when it has been closed.
      while (underway.size > 0) await Promise.allSettled(underway);
      vi.unstubAllGlobals();
    },
  };
}

/** A page's own kind of file has no bytes that the server's kind of request would take. */
const bytesOf = (file: Blob): Promise<Uint8Array<ArrayBuffer>> =>
  new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(new Uint8Array(Buffer.from(reader.result as ArrayBuffer)));
    reader.onerror = () => reject(reader.error);
    reader.readAsArrayBuffer(file);
  });

/** Where a window is, as the address bar would say it. */
class Place {
  readonly #listeners = new Set<() => void>();
  constructor(public address: string) {}
  readonly goTo = (address: string) => {
    this.address = address;
    for (const listener of this.#listeners) listener();
  };
  readonly onMove = (listener: () => void) => {
    this.#listeners.add(listener);
    return () => void this.#listeners.delete(listener);
  };
}

function Located({ place, children }: { readonly place: Place; readonly children: ReactNode }) {
  const [address, setAddress] = useState(place.address);
  useEffect(() => place.onMove(() => setAddress(place.address)), [place]);
  const [router] = useState<AppRouterInstance>(
    () =>
      ({
        push: place.goTo,
        replace: place.goTo,
        back: () => {},
        forward: () => {},
        refresh: () => {},
        prefetch: () => {},
        hmrRefresh: () => {},
      }) as unknown as AppRouterInstance,
  );
  const url = new URL(address, "http://localhost");
  return (
    <AppRouterContext.Provider value={router}>
      <PathnameContext.Provider value={url.pathname}>
        <SearchParamsContext.Provider value={url.searchParams}>{children}</SearchParamsContext.Provider>
      </PathnameContext.Provider>
    </AppRouterContext.Provider>
  );
}

function Routed({ place }: { readonly place: Place }) {
  const [address, setAddress] = useState(place.address);
  useEffect(() => place.onMove(() => setAddress(place.address)), [place]);
  const { pathname } = new URL(address, "http://localhost");
  const [first, version = "", stage] = pathname.split("/").filter(Boolean).map(decodeURIComponent);
  if (first === "v")
    return (
      <VersionShell version={version}>
        <StageView stage={(stageNamed(stage)?.name ?? "diagram") as StageName} />
      </VersionShell>
    );
  if (first === "decisions") return version ? <DecisionFilePage file={version} /> : <DecisionsPage />;
  if (first === "directory") return <DirectoryPage />;
  if (first === "find") return <FindPage />;
  if (first === "members") return <MembersPage />;
  if (first === "work") return <WorkPage />;
  return <HomePage />;
}

const blocks = "DIV P SECTION MAIN HEADER FORM FIELDSET UL OL LI TABLE TR H1 H2 H3".split(" ");

/**
 * An element's own style and nothing from sheets: to find things by their role and name, all rules of the interface's sheets would be
 * matched against all that is shown, which is a quarter of the time such tests take.
 */
function ownStyle(element: Element): CSSStyleDeclaration {
  const { style } = element as HTMLElement;
  const display = () => style.display || (blocks.includes(element.tagName) ? "block" : "inline");
  const valueFor = (name: string) => (name === "display" ? display() : style.getPropertyValue(name));
  return new Proxy(style, {
    get: (_, name) =>
      name === "getPropertyValue" ? valueFor : name === "display" ? display() : Reflect.get(style, name),
  });
}

const labelled = "Button Input Meter Output Progress Select TextArea".split(" ");
const firstOf = labelled.map((kind) => (kind === "Input" ? "input:not([type=hidden])" : kind.toLowerCase())).join();

/**
 * The labels of a field, looked for among the labels there are. Otherwise all that is shown would be gone through for each button
 * whose name is asked for.
 */
function labelsOf(this: HTMLElement): HTMLLabelElement[] | null {
  if (this instanceof HTMLInputElement && this.type === "hidden") return null;
  const isOf = (label: HTMLLabelElement) =>
    label.htmlFor ? label.htmlFor === this.id : label.querySelector(firstOf) === this;
  return [...document.querySelectorAll("label")].filter(isOf);
}

/** What a browser has and this has not. */
function standIns(answer: (path: string, init?: RequestInit) => Promise<Response>): void {
  vi.stubGlobal("fetch", answer);
  vi.stubGlobal("Worker", InProcessWorker);
  vi.stubGlobal("EventSource", FeedSource);
  vi.stubGlobal("matchMedia", () => ({
    matches: false,
    addEventListener() {},
    removeEventListener() {},
    addListener() {},
    removeListener() {},
  }));
  vi.stubGlobal(
    "ResizeObserver",
    class {
      observe() {}
      unobserve() {}
      disconnect() {}
    },
  );
  vi.stubGlobal(
    "IntersectionObserver",
    class {
      observe() {}
      unobserve() {}
      disconnect() {}
    },
  );
  Object.defineProperty(Blob.prototype, "arrayBuffer", {
    configurable: true,
    async value(this: Blob) {
      return (await bytesOf(this)).buffer;
    },
  });
  Object.defineProperty(Blob.prototype, "text", {
    configurable: true,
    writable: true,
    async value(this: Blob) {
      return new TextDecoder().decode(await bytesOf(this));
    },
  });
  // Nothing is laid out here, so that a piece of text has no place.
  Range.prototype.getClientRects = () => [] as unknown as DOMRectList;
  Range.prototype.getBoundingClientRect = () => new DOMRect();
  HTMLCanvasElement.prototype.getContext = () => null;
  window.getComputedStyle = ownStyle;
  for (const kind of labelled) {
    const { prototype } = window[`HTML${kind}Element` as "HTMLInputElement"];
    Object.defineProperty(prototype, "labels", { configurable: true, get: labelsOf });
  }
  Element.prototype.scrollIntoView = () => {};
  Element.prototype.scrollTo = function (this: Element, to?: unknown) {
    this.scrollTop = (to as ScrollToOptions | undefined)?.top ?? 0;
    this.dispatchEvent(new Event("scroll"));
  };
  Element.prototype.setPointerCapture = () => {};
  // Of animations only that they may be begun, of layout only that a window is a window large.
  (SVGElement.prototype as { beginElement?: () => void }).beginElement = () => {};
  for (const [size, pixels] of [
    ["offsetWidth", 1280],
    ["offsetHeight", 800],
    ["clientHeight", 800],
    ["scrollHeight", 800],
  ] as const)
    Object.defineProperty(HTMLElement.prototype, size, { configurable: true, get: () => pixels });
  // What is in view is told by the window itself, not by what tests see of it.
  (document.defaultView as unknown as { ResizeObserver: unknown }).ResizeObserver = globalThis.ResizeObserver;
}

/** The worker of the browser, in this thread: the same jobs on the same copies of models, by messages. */
class InProcessWorker {
  readonly #channel = new MessageChannel();
  constructor() {
    const held = new Held();
    const worker: Pick<Remote<JobWorker>, never> & object = {
      run: async (name: keyof Jobs, handed: never, input: never) => {
        const models = held.take(handed);
        return (await jobIn(jobModules, name))(models, input, () => {});
      },
    };
    expose(worker, this.#channel.port1);
    this.#channel.port2.start();
  }
  postMessage(message: unknown, transfer: Transferable[] = []) {
    this.#channel.port2.postMessage(message, transfer);
  }
  addEventListener(...listener: Parameters<MessagePort["addEventListener"]>) {
    this.#channel.port2.addEventListener(...listener);
  }
  removeEventListener(...listener: Parameters<MessagePort["removeEventListener"]>) {
    this.#channel.port2.removeEventListener(...listener);
  }
  terminate() {
    this.#channel.port1.close();
    this.#channel.port2.close();
  }
}

/** The stream of what happens, straight from the server's feed. */
class FeedSource {
  onopen: (() => void) | undefined;
  onmessage: ((event: { data: string }) => void) | undefined;
  readonly #stop = hearFeed(localMember, null, (_, data) => this.onmessage?.({ data }));
  constructor() {
    setTimeout(() => this.onopen?.());
  }
  close() {
    this.#stop();
  }
}
