"use client";
import { Box, Button, chakra } from "@chakra-ui/react";
import { leastPrint, overlap, type PaperPlan, type Scene, smallestPrint } from "@/core/drawing";
import { Figures } from "../../canvas/FigureView";
import { useLettering } from "../../canvas/useLettering";
import { text } from "../../messages";

const size = { width: 380, height: 260 };

/** What comes out: the sheets with the drawing on them, or the picture with its size; and whether all of it can be read. */
export function ExportPreview(props: {
  readonly scene: Scene;
  /** How it lies on paper; none for a picture. */
  readonly plan: PaperPlan | undefined;
  /** Times the size on the screen, for a picture. */
  readonly scale: number;
  readonly onTile: () => void;
}) {
  const { scene, plan, scale, onTile } = props;
  const lettering = useLettering(scene.figures.length);
  const words = text.exporting;
  const { bounds } = scene;
  // Sheets side by side, as they are laid over each other; in units of the drawing.
  const sheets = plan?.sheets.map(({ view }) => {
    const unit = 1 / plan.scale;
    const { frame, width, height } = plan;
    return { x: view.x - frame.x * unit, y: view.y - frame.y * unit, width: width * unit, height: height * unit, view };
  });
  const all = sheets ?? [{ ...bounds, view: bounds }];
  const left = Math.min(...all.map(({ x }) => x));
  const top = Math.min(...all.map(({ y }) => y));
  const right = Math.max(...all.map(({ x, width }) => x + width));
  const bottom = Math.max(...all.map(({ y, height }) => y + height));
  const print = plan && smallestPrint(scene, plan);
  const isSmall = print !== undefined && print < leastPrint;
  return (
    <Box flex="0 1 400px" minW={0} data-testid="export-preview">
      <chakra.svg
        role="img"
        aria-label={words.preview}
        viewBox={`${left} ${top} ${Math.max(1, right - left)} ${Math.max(1, bottom - top)}`}
        w="100%"
        maxW={`${size.width}px`}
        h={`${size.height}px`}
        bg="ground"
        borderWidth="1px"
        borderColor="line"
        borderRadius="6px"
        p={2}
      >
        {sheets?.map((sheet, at) => (
          <rect
            key={at}
            x={sheet.x}
            y={sheet.y}
            width={sheet.width}
            height={sheet.height}
            fill="#FFFFFF"
            stroke="var(--chakra-colors-pencil)"
            vectorEffect="non-scaling-stroke"
            data-sheet=""
          />
        ))}
        {!plan && <rect {...bounds} fill="#FFFFFF" />}
        <Figures figures={scene.figures} lettering={lettering} />
        {plan &&
          plan.sheets.length > 1 &&
          plan.sheets.map(({ view }, at) => (
            <rect
              key={at}
              {...view}
              fill="none"
              stroke="var(--chakra-colors-accent)"
              strokeDasharray="4 3"
              vectorEffect="non-scaling-stroke"
            />
          ))}
      </chakra.svg>
      <chakra.p mt={2} fontSize="13px" role="status">
        {plan
          ? words.onPaper(plan.sheets.length, Math.round((plan.scale / 0.75) * 100), plan.legend === "behind")
          : words.pixels(Math.ceil((bounds.width + 32) * scale), Math.ceil((bounds.height + 32) * scale))}
      </chakra.p>
      {plan && plan.sheets.length > 1 && (
        <chakra.p fontSize="12px" color="quiet">
          {words.overlaps(Math.round((overlap / 72) * 25.4))}
        </chakra.p>
      )}
      {isSmall && (
        <chakra.p fontSize="13px" color="attention" mt={1}>
          {words.smallPrint(print.toFixed(1), leastPrint)}{" "}
          {plan?.sheets.length === 1 && (
            <Button size="2xs" variant="outline" borderColor="accent" color="accent" bg="paper" onClick={onTile}>
              {words.tileInstead}
            </Button>
          )}
        </chakra.p>
      )}
    </Box>
  );
}
