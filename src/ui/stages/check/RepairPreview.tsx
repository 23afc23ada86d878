"use client";
import { Box, Button, chakra, Dialog, Flex, Portal } from "@chakra-ui/react";
import { useEffect, useMemo, useState } from "react";
import { type Finding, keyOf } from "@/core/check";
import { perform } from "@/core/commands";
import { type Scene, sceneOf } from "@/core/drawing";
import { type Bounds, type Id, type Model, shapesOf } from "@/core/model";
import { FigureView } from "../../canvas/FigureView";
import { JobRunner } from "../../kernel/jobRunner";
import { text, worded } from "../../messages";
import { useFindings } from "../../version/findings";

interface RepairPreviewProps {
  readonly model: Model;
  readonly finding: Finding;
  readonly onApply: () => void;
  readonly onClose: () => void;
}

/** What a repair would do: the place as it is and as it would be, and what the check would then say. */
export function RepairPreview({ model, finding, onApply, onClose }: RepairPreviewProps) {
  const { findings, profile, adaption } = useFindings();
  const repaired = useMemo(() => afterRepair(model, finding), [model, finding]);
  const [found, setFound] = useState<readonly Finding[] | null>(null);
  useEffect(() => {
    if (!repaired) return;
    const worker = new JobRunner();
    worker.run("findings", { model: repaired }, { profile, adaption, part: "all" }).then(setFound, () => setFound([]));
    return () => worker.stop();
  }, [repaired, profile, adaption]);
  const before = new Set(findings.map(keyOf));
  const after = new Set(found?.map(keyOf));
  const gone = findings.filter((one) => !after.has(keyOf(one))).length;
  const added = found?.filter((one) => !before.has(keyOf(one))) ?? [];
  return (
    <Dialog.Root open onOpenChange={({ open }) => !open && onClose()} placement="center">
      <Portal>
        <Dialog.Backdrop bg="rgb(30 36 48 / 35%)" />
        <Dialog.Positioner>
          <Dialog.Content bg="paper" color="ink" borderRadius="6px" maxW="1060px">
            <Dialog.Header pb={2}>
              <Dialog.Title fontSize="16px">{finding.repair && worded(finding.repair.label)}</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>
              <chakra.p mb={3}>{worded(finding.said)}</chakra.p>
              <Flex gap={3}>
                <Place title={text.check.asItIs} model={model} elements={finding.elements} />
                {repaired && (
                  <Place title={text.check.asItWouldBe} model={repaired} elements={finding.elements} isNew />
                )}
              </Flex>
              <chakra.p mt={3} data-testid="repair-effect">
                {found === null
                  ? text.check.looking
                  : after.has(keyOf(finding))
                    ? text.check.helpsNot
                    : text.check.helps(gone, added.length)}
              </chakra.p>
              {added.slice(0, 3).map((one) => (
                <chakra.p key={keyOf(one)} color="quiet">
                  {one.message}
                </chakra.p>
              ))}
            </Dialog.Body>
            <Dialog.Footer>
              <Button size="sm" variant="ghost" onClick={onClose}>
                {text.dialog.cancel}
              </Button>
              <Button size="sm" bg="accent" color="paper" disabled={!repaired} onClick={onApply}>
                {text.check.apply}
              </Button>
            </Dialog.Footer>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}

/** The model with a repair performed; undefined where it is refused. */
export function afterRepair(model: Model, { repair }: Finding): Model | undefined {
  let now = model;
  for (const command of repair?.commands ?? []) {
    const done = perform(now, command);
    if (!done.ok) return undefined;
    now = done.value.model;
  }
  return now;
}

/** How much of the page around the place is shown, in its own units. */
const around = { x: 210, y: 105 };

function Place(props: {
  readonly title: string;
  readonly model: Model;
  readonly elements: readonly Id[];
  readonly isNew?: boolean;
}) {
  const { model, elements } = props;
  const shape = elements.flatMap((id) => shapesOf(model, id))[0];
  const edge = [...model.edges].find((one) => elements.includes(one.element));
  const page = model.diagrams.get(shape?.diagram ?? edge?.diagram ?? "") ?? [...model.diagrams][0];
  const scene: Scene | undefined = useMemo(() => page && sceneOf(model, page), [model, page]);
  const figure = scene?.figures.find((one) => elements.includes(one.id));
  const view = figure ? grown(figure.bounds) : scene?.bounds;
  return (
    <Box flex="1" minW={0}>
      <chakra.p color="quiet" fontSize="13px" mb={1}>
        {props.title}
      </chakra.p>
      <Box borderWidth="1px" borderColor="line" borderRadius="6px" bg="ground" h="230px">
        {scene && view && (
          <svg
            width="100%"
            height="100%"
            viewBox={`${view.x} ${view.y} ${view.width} ${view.height}`}
            role="img"
            aria-label={props.title}
          >
            {scene.figures.map((one) => (
              <FigureView key={one.id} figure={one} />
            ))}
            {scene.figures
              .filter((one) => elements.includes(one.id) && !one.line)
              .map(({ id, bounds }) => (
                <rect
                  key={id}
                  x={bounds.x - 6}
                  y={bounds.y - 6}
                  width={bounds.width + 12}
                  height={bounds.height + 12}
                  rx="10"
                  fill="none"
                  stroke={props.isNew ? "var(--chakra-colors-accent)" : "var(--chakra-colors-pencil)"}
                  strokeDasharray={props.isNew ? undefined : "5 3"}
                  strokeWidth="2.4"
                />
              ))}
          </svg>
        )}
      </Box>
    </Box>
  );
}

const grown = ({ x, y, width, height }: Bounds): Bounds => ({
  x: x - around.x,
  y: y - around.y,
  width: width + 2 * around.x,
  height: height + 2 * around.y,
});
