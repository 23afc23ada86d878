"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import { useRouter } from "next/navigation";
import { home } from "@/contract";
import type { Point } from "@/core/model";
import { EmptyState, ErrorPage, LoadingPage } from "../controls/states";
import { useAsked } from "../kernel/queries";
import { wordsOf } from "../kernel/wordsOf";
import { text } from "../messages";

const ink = "var(--chakra-colors-ink)";
const edge = 24;

/** Which process calls which, and which sends messages to which. */
export function Landscape() {
  const { data, error, refetch } = useAsked(home.openLandscape, {});
  const router = useRouter();
  if (error) return <ErrorPage message={wordsOf(error)} retry={() => void refetch()} />;
  if (!data) return <LoadingPage label={text.shell.loading} />;
  if (data.boxes.length === 0) return <EmptyState>{text.home.noCalls}</EmptyState>;
  const named = new Map(data.boxes.map((box) => [box.id, box.name]));
  const { x, y, width, height } = data.area;
  return (
    <Box bg="paper" borderWidth="1px" borderColor="line" borderRadius="6px" overflow="auto">
      <chakra.svg
        role="group"
        aria-label={text.home.landscape}
        viewBox={`${x - edge} ${y - edge} ${width + 2 * edge} ${height + 2 * edge}`}
        style={{ width: `min(100%, ${(width + 2 * edge) * 1.1}px)` }}
      >
        <defs>
          <marker
            id="landscape-tip"
            viewBox="0 0 10 10"
            refX="9"
            refY="5"
            markerWidth="8"
            markerHeight="8"
            orient="auto"
          >
            <path d="M0 0L10 5L0 10Z" fill={ink} />
          </marker>
        </defs>
        {data.lines.map((line, at) => (
          <g
            key={at}
            role="img"
            aria-label={text.home.link(
              named.get(line.from) ?? "",
              line.kind,
              named.get(line.to) ?? "",
              line.names.join(", "),
            )}
          >
            <title>{line.names.join(", ")}</title>
            <path
              d={line.points.map((point, index) => `${index === 0 ? "M" : "L"}${point.x} ${point.y}`).join("")}
              fill="none"
              stroke={ink}
              strokeWidth={line.kind === "calls" ? 1.8 : 1.3}
              strokeDasharray={line.kind === "calls" ? undefined : "6 4"}
              markerEnd="url(#landscape-tip)"
            />
            {line.names.length > 0 && <Words at={middleOf(line.points)} words={line.names.join(", ")} />}
          </g>
        ))}
        {data.boxes.map(({ id, name, version, bounds }) => {
          const open = () => router.push(`/v/${encodeURIComponent(version)}/diagram`);
          return (
            <chakra.g
              key={id}
              role="link"
              tabIndex={0}
              aria-label={name}
              cursor="pointer"
              css={{ "&:hover rect, &:focus-visible rect": { stroke: "accent", strokeWidth: 2.5 }, outline: "none" }}
              onClick={open}
              onKeyDown={(event: React.KeyboardEvent) => event.key === "Enter" && open()}
            >
              <rect {...bounds} rx="6" fill="var(--chakra-colors-sheet)" stroke={ink} strokeWidth="1.5" />
              <foreignObject {...bounds}>
                <Flex
                  h="100%"
                  align="center"
                  justify="center"
                  textAlign="center"
                  fontSize="12px"
                  lineHeight="1.2"
                  p="4px"
                >
                  {name}
                </Flex>
              </foreignObject>
            </chakra.g>
          );
        })}
      </chakra.svg>
      <Flex gap={6} px={4} py={2} borderTopWidth="1px" borderColor="line" color="quiet" fontSize="12px">
        <span>—▸ {text.home.calls}</span>
        <span>- -▸ {text.home.messages}</span>
        <span>{text.home.landscapeHint}</span>
      </Flex>
    </Box>
  );
}

function Words({ at, words }: { readonly at: Point; readonly words: string }) {
  return (
    <text
      x={at.x}
      y={at.y - 5}
      textAnchor="middle"
      style={{ fontSize: 11 }}
      fill="var(--chakra-colors-quiet)"
      stroke="var(--chakra-colors-paper)"
      strokeWidth="3"
      paintOrder="stroke"
    >
      {words.length > 32 ? `${words.slice(0, 31)}…` : words}
    </text>
  );
}

function middleOf(points: readonly Point[]): Point {
  const at = Math.floor((points.length - 1) / 2);
  const [a, b] = [points[at], points[at + 1] ?? points[at]];
  return { x: ((a?.x ?? 0) + (b?.x ?? 0)) / 2, y: ((a?.y ?? 0) + (b?.y ?? 0)) / 2 };
}
