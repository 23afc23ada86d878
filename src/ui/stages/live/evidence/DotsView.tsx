"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import { useEffect, useRef } from "react";
import type { DottedChart, LogFilter } from "@/core/evidence";
import { EmptyState } from "../../../controls/states";
import { text } from "../../../messages";
import type { LogRunner } from "../../../version/logRunner";
import { dayWords } from "./said";
import { useLogJob } from "./useLogJob";
import { Working } from "./Working";

const words = text.evidence.dots;

/** Hues that are told apart beside each other, evenly round the circle; the lightness is that of drawings. */
const hueOf = (place: number): string => `hsl(${(place * 137.5) % 360} 55% 45%)`;

/** Every event as a dot, by its case and its time. */
export function DotsView(props: { readonly runner: LogRunner; readonly filters: readonly LogFilter[] }) {
  const { answer, share, error, again } = useLogJob(props.runner, "dotsOfLog", props.filters);
  if (!answer) return <Working share={share} error={error} onAgain={again} />;
  if (answer.points.length === 0) return <EmptyState>{words.untimed}</EmptyState>;
  const used = [...new Set(answer.points.map(([, , activity]) => activity))].sort((a, b) => a - b);
  return (
    <Flex flex="1" minH={0} p={4} gap={4} data-testid="log-dots">
      <Flex direction="column" flex="1" minW={0} gap={1}>
        <chakra.p color="quiet" fontSize="12px">
          {words.label} {answer.shown < answer.cases && words.shown(answer.shown, answer.cases)}
        </chakra.p>
        <Dots chart={answer} />
      </Flex>
      <chakra.ul listStyleType="none" w="220px" overflow="auto" fontSize="12px" flexShrink={0}>
        {used.map((activity) => (
          <chakra.li key={activity} display="flex" gap={2} alignItems="center" py={0.5}>
            <chakra.span
              w="10px"
              h="10px"
              borderRadius="50%"
              flexShrink={0}
              style={{ background: hueOf(activity) }}
              aria-hidden="true"
            />
            {answer.activities[activity]}
          </chakra.li>
        ))}
      </chakra.ul>
    </Flex>
  );
}

/** Tens of thousands of dots are pixels, not elements of the page. */
function Dots({ chart }: { readonly chart: DottedChart }) {
  const place = useRef<HTMLCanvasElement>(null);
  let [first, last] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const [at] of chart.points) {
    first = Math.min(first, at);
    last = Math.max(last, at);
  }
  useEffect(() => {
    const canvas = place.current;
    if (!canvas) return;
    const draw = () => {
      const { width, height } = canvas.getBoundingClientRect();
      const sharp = window.devicePixelRatio || 1;
      canvas.width = width * sharp;
      canvas.height = height * sharp;
      const pen = canvas.getContext("2d");
      if (!pen) return;
      pen.scale(sharp, sharp);
      const across = (width - 8) / Math.max(1, last - first);
      const down = (height - 8) / Math.max(1, chart.shown - 1);
      const size = Math.max(1.2, Math.min(4, down / 2));
      for (const [at, row, activity] of chart.points) {
        pen.fillStyle = hueOf(activity);
        pen.beginPath();
        pen.arc(4 + (at - first) * across, 4 + row * down, size, 0, 2 * Math.PI);
        pen.fill();
      }
    };
    draw();
    const watch = new ResizeObserver(draw);
    watch.observe(canvas);
    return () => watch.disconnect();
  }, [chart, first, last]);
  return (
    <>
      <Box flex="1" minH={0} bg="paper" borderWidth="1px" borderColor="line" borderRadius="6px" overflow="hidden">
        <canvas
          ref={place}
          role="img"
          aria-label={words.label}
          style={{ width: "100%", height: "100%", display: "block" }}
        />
      </Box>
      <Flex justify="space-between" color="quiet" fontSize="12px">
        <span>{dayWords(first)}</span>
        <span>{dayWords(last)}</span>
      </Flex>
    </>
  );
}
