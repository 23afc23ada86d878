"use client";
import { Box } from "@chakra-ui/react";
import { BarChart, CustomChart, HeatmapChart, LineChart } from "echarts/charts";
import {
  GridComponent,
  MarkAreaComponent,
  MarkLineComponent,
  TooltipComponent,
  VisualMapContinuousComponent,
} from "echarts/components";
import type { EChartsCoreOption } from "echarts/core";
import { init, use } from "echarts/core";
import { SVGRenderer } from "echarts/renderers";
import { useEffect, useRef } from "react";

use([
  BarChart,
  CustomChart,
  HeatmapChart,
  LineChart,
  GridComponent,
  MarkAreaComponent,
  MarkLineComponent,
  TooltipComponent,
  VisualMapContinuousComponent,
  SVGRenderer,
]);

/** A colour of the theme, by day or night; charts are drawn as SVG, which takes it as it is. */
export const ink = (token: string) => `var(--chakra-colors-${token})`;

const type = "'Atkinson Hyperlegible Next', Verdana, sans-serif";
/** How axes look in every chart. */
export const axis = {
  axisLine: { lineStyle: { color: ink("pencil") } },
  axisTick: { show: false },
  axisLabel: { color: ink("quiet"), fontSize: 11, fontFamily: type },
  nameTextStyle: { color: ink("quiet"), fontSize: 11, fontFamily: type },
  splitLine: { show: false },
} as const;

/** A chart with its words for who does not see it; what it shows stands in a table beside it. */
export function Chart({
  option,
  label,
  height,
  onPick,
}: {
  readonly option: EChartsCoreOption;
  readonly label: string;
  readonly height: string;
  /** A mark was clicked: the how-manieth of its series. */
  readonly onPick?: (at: number) => void;
}) {
  const place = useRef<HTMLDivElement>(null);
  const pick = useRef(onPick);
  pick.current = onPick;
  useEffect(() => {
    const element = place.current;
    if (!element) return;
    const chart = init(element, null, { renderer: "svg" });
    chart.setOption({ animation: false, textStyle: { fontFamily: type }, ...option });
    chart.on("click", ({ dataIndex }) => pick.current?.(dataIndex));
    const watch = new ResizeObserver(() => chart.resize());
    watch.observe(element);
    return () => {
      watch.disconnect();
      chart.dispose();
    };
  }, [option]);
  return <Box ref={place} role="img" aria-label={label} w="100%" h={height} />;
}

/** A picture that is shown, as a file: the theme's colours are written out as they are seen now, since a file knows no theme. */
export function pictureOf(place: HTMLElement): string | undefined {
  const drawn = place.querySelector("svg");
  if (!drawn) return undefined;
  const colours = getComputedStyle(place);
  const copy = drawn.cloneNode(true) as SVGElement;
  copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  copy.setAttribute("viewBox", `0 0 ${drawn.clientWidth} ${drawn.clientHeight}`);
  copy.style.background = ink("paper");
  return copy.outerHTML.replace(/var\((--[\w-]+)\)/g, (whole, name: string) => {
    const value = colours.getPropertyValue(name).trim();
    return value || whole;
  });
}
