import type { Kind } from "@/core/commands";
import { text } from "../../messages";

export interface KindKey {
  readonly key: string;
  readonly label: string;
}

/** The letter that adds a kind, and what the strip calls it. One letter means one thing everywhere. */
export function keyOfKind(kind: Kind): KindKey {
  const { type, trigger } = kind;
  switch (type) {
    case "startEvent":
      return { key: "1", label: text.kinds.start };
    case "task":
      return { key: "T", label: text.kinds.task };
    case "exclusiveGateway":
      return { key: "D", label: text.kinds.decision };
    case "parallelGateway":
      return { key: "P", label: text.kinds.parallel };
    case "inclusiveGateway":
      return { key: "I", label: text.kinds.inclusive };
    case "eventBasedGateway":
      return { key: "G", label: text.kinds.firstEvent };
    case "intermediateCatchEvent":
      if (trigger === "messageEventDefinition") return { key: "M", label: text.kinds.messageIn };
      if (trigger === "signalEventDefinition") return { key: "A", label: text.kinds.signalIn };
      if (trigger === "conditionalEventDefinition") return { key: "Q", label: text.kinds.condition };
      return { key: "W", label: text.kinds.wait };
    case "intermediateThrowEvent":
      return { key: "H", label: text.kinds.messageOut };
    case "receiveTask":
      return { key: "V", label: text.kinds.receive };
    case "endEvent":
      return { key: "E", label: text.kinds.end };
    case "subProcess":
      return { key: "S", label: text.kinds.subProcess };
    case "callActivity":
      return { key: "C", label: text.kinds.call };
    case "boundaryEvent":
      return { key: "B", label: text.kinds.atEdge };
    case "dataObjectReference":
      return { key: "F", label: text.kinds.document };
    case "dataStoreReference":
      return { key: "K", label: text.kinds.store };
    case "textAnnotation":
      return { key: "N", label: text.kinds.note };
    case "participant":
      return kind.closed ? { key: "X", label: text.kinds.outside } : { key: "U", label: text.kinds.pool };
    case "lane":
      return { key: "L", label: text.kinds.lane };
    default:
      return { key: "", label: type };
  }
}
