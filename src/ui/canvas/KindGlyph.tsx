import type { Kind } from "@/core/commands";

/** A small picture of a kind of element, for the strip. Drawn in the one ink, as the shapes themselves are. */
export function KindGlyph({ kind }: { readonly kind: Kind }) {
  return (
    <svg
      width="20"
      height="16"
      viewBox="0 0 20 16"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.4"
      aria-hidden="true"
    >
      <Shape kind={kind} />
    </svg>
  );
}

function Shape({ kind }: { readonly kind: Kind }) {
  const { type, trigger } = kind;
  if (type.endsWith("Event")) {
    const isEnd = type === "endEvent";
    const isDouble = type !== "startEvent" && !isEnd;
    return (
      <>
        <circle
          cx="10"
          cy="8"
          r="7"
          strokeWidth={isEnd ? 2.8 : 1.4}
          strokeDasharray={type === "boundaryEvent" ? "3 2" : undefined}
        />
        {isDouble && (
          <circle cx="10" cy="8" r="5" strokeWidth="1" strokeDasharray={type === "boundaryEvent" ? "3 2" : undefined} />
        )}
        {trigger === "timerEventDefinition" && <path d="M10 5V8L12 9" strokeWidth="1.1" />}
        {trigger === "messageEventDefinition" && (
          <path
            d="M7.3 6H12.7V10H7.3ZM7.3 6L10 8.2L12.7 6"
            strokeWidth="1"
            fill={type === "intermediateThrowEvent" ? "currentColor" : "none"}
          />
        )}
      </>
    );
  }
  if (type.endsWith("Gateway")) {
    return (
      <>
        <path d="M10 0.8L17.2 8L10 15.2L2.8 8Z" />
        {type === "exclusiveGateway" && <path d="M8 5.6L12 10.4M12 5.6L8 10.4" />}
        {type === "parallelGateway" && <path d="M10 4.6V11.4M6.6 8H13.4" />}
        {type === "inclusiveGateway" && <circle cx="10" cy="8" r="2.8" />}
        {type === "eventBasedGateway" && <path d="M10 4.8L13 7L11.9 10.6H8.1L7 7Z" strokeWidth="1.1" />}
      </>
    );
  }
  switch (type) {
    case "participant":
      return kind.closed ? <path d="M1 5H19V11H1Z" /> : <path d="M1 2H19V14H1ZM5 2V14" />;
    case "lane":
      return <path d="M1 2H19V14H1ZM1 8H19M4.5 2V14" />;
    case "dataObjectReference":
      return <path d="M5 1H12L15 4V15H5ZM12 1V4H15" />;
    case "dataStoreReference":
      return <path d="M4 4C4 1.4 16 1.4 16 4V12C16 14.6 4 14.6 4 12ZM4 4C4 6.6 16 6.6 16 4" />;
    case "textAnnotation":
      return <path d="M7 1H3V15H7M8 5H16M8 8H16M8 11H13" />;
    case "subProcess":
      return (
        <path d="M3 2.5H17Q19 2.5 19 4.5V11.5Q19 13.5 17 13.5H3Q1 13.5 1 11.5V4.5Q1 2.5 3 2.5ZM10 8.2V12.2M8 10.2H12" />
      );
    default:
      return <rect x="1" y="2.5" width="18" height="11" rx="2.4" strokeWidth={type === "callActivity" ? 2.6 : 1.4} />;
  }
}
