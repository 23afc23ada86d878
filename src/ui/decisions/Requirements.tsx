"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { useMemo, useState } from "react";
import { type DecisionModel, drawRequirements } from "@/core/decisions";
import { sceneToSvg } from "@/core/drawing";
import { FigureView } from "../canvas/FigureView";
import { NewLine } from "../controls/trayParts";
import { giveFile } from "../kernel/ask";
import { text, worded } from "../messages";
import { useDecisions } from "./decisionStore";
import { freeId } from "./freeId";

const words = text.decisions;
const additions = () =>
  [
    ["table", words.addTable],
    ["expression", words.addExpression],
    ["input", words.addInput],
    ["knowledge", words.addKnowledge],
  ] as const;

/** What requires what, drawn as the standard draws it; a press opens what it stands for. New ones come from here. */
export function Requirements({
  model,
  chosen,
  onChoose,
  onExport,
}: {
  readonly model: DecisionModel;
  readonly chosen: string | undefined;
  readonly onChoose: (id: string) => void;
  readonly onExport: () => void;
}) {
  const { edit, document } = useDecisions();
  const [adding, setAdding] = useState<ReturnType<typeof additions>[number][0]>();
  const [typed, setTyped] = useState("");
  const scene = useMemo(() => drawRequirements(model), [model]);
  const { x, y, width, height } = scene.bounds;
  const add = () => {
    const name = typed.trim();
    if (!adding || !document || name === "") return;
    const id = freeId(document.root, name);
    if (!edit(words.editing.add(name), { type: "add", what: adding, id, name })) return;
    setAdding(undefined);
    setTyped("");
    onChoose(id);
  };
  return (
    <Flex bg="sheet" borderBottomWidth="1px" borderColor="line" px={6} py={2} gap={4} maxH="172px" flexShrink={0}>
      <Box flex="1" minW={0} overflow="auto" data-testid="requirements">
        {scene.figures.length > 0 && (
          <svg
            viewBox={`${x - 4} ${y - 4} ${width + 8} ${height + 8}`}
            width={width + 8}
            height={height + 8}
            style={{ maxWidth: width > 1100 ? "100%" : undefined, display: "block" }}
            role="group"
            aria-label={words.drawing}
          >
            {scene.figures.map((figure) =>
              figure.type === "requirement" ? (
                <FigureView key={figure.id} figure={figure} />
              ) : (
                <g
                  key={figure.id}
                  role="button"
                  tabIndex={0}
                  aria-label={worded(figure.title)}
                  aria-pressed={figure.id === chosen}
                  style={{ cursor: "pointer" }}
                  onClick={() => onChoose(figure.id)}
                  onKeyDown={(event) => {
                    if (event.key === "Enter" || event.key === " ") {
                      event.preventDefault();
                      onChoose(figure.id);
                    }
                  }}
                >
                  <FigureView figure={figure} />
                  {figure.id === chosen && (
                    <rect
                      x={figure.bounds.x - 3}
                      y={figure.bounds.y - 3}
                      width={figure.bounds.width + 6}
                      height={figure.bounds.height + 6}
                      rx={4}
                      fill="none"
                      stroke="var(--chakra-colors-accent)"
                      strokeWidth={2}
                    />
                  )}
                </g>
              ),
            )}
          </svg>
        )}
      </Box>
      <Flex direction="column" gap={1} w="176px" flexShrink={0}>
        {adding ? (
          <>
            <chakra.span fontSize="12px" color="quiet">
              {additions().find(([what]) => what === adding)?.[1]}
            </chakra.span>
            <NewLine label={words.name} value={typed} onType={setTyped} onEnter={add} />
            <Flex gap={1.5}>
              <Button size="xs" bg="accent" color="onAccent" onClick={add}>
                {text.tray.add}
              </Button>
              <Button size="xs" variant="outline" onClick={() => setAdding(undefined)}>
                {text.dialog.cancel}
              </Button>
            </Flex>
          </>
        ) : (
          additions().map(([what, label]) => (
            <Button
              key={what}
              h="25px"
              size="xs"
              variant="outline"
              justifyContent="flex-start"
              onClick={() => setAdding(what)}
            >
              + {label}
            </Button>
          ))
        )}
        {scene.figures.length > 0 && !adding && (
          <Flex gap={1}>
            <Button h="25px" size="xs" variant="ghost" color="quiet" onClick={onExport}>
              {words.export}
            </Button>
            <Button
              h="25px"
              size="xs"
              variant="ghost"
              color="quiet"
              title={words.drawingLegend}
              onClick={() =>
                giveFile(
                  new Blob([sceneToSvg(scene, { title: words.drawing })], { type: "image/svg+xml" }),
                  words.svgFile,
                )
              }
            >
              SVG
            </Button>
          </Flex>
        )}
      </Flex>
    </Flex>
  );
}
