"use client";
import { Box, Button, chakra } from "@chakra-ui/react";
import { useMemo } from "react";
import { sceneToSvg } from "@/core/drawing";
import type { Model } from "@/core/model";
import { drawParticipation, participationOf } from "@/core/services";
import { FigureView } from "../../canvas/FigureView";
import { giveFile } from "../../kernel/ask";
import { text } from "../../messages";

const words = text.handoff.services;

/** Who provides and who uses which service, drawn; what each line says is its name. */
export function ParticipantsMap({ model }: { readonly model: Model }) {
  const scene = useMemo(() => drawParticipation(participationOf(model)), [model]);
  if (!scene.figures.some(({ type }) => type === "link")) return <chakra.p color="quiet">{words.noMap}</chakra.p>;
  const { x, y, width, height } = scene.bounds;
  const save = () =>
    giveFile(new Blob([sceneToSvg(scene, { title: words.map })], { type: "image/svg+xml" }), words.mapFile);
  return (
    <Box>
      <Box
        overflow="auto"
        bg="paper"
        borderWidth="1px"
        borderColor="line"
        borderRadius="6px"
        p={3}
        data-testid="participants"
      >
        <svg
          viewBox={`${x - 4} ${y - 4} ${width + 8} ${height + 8}`}
          width={width + 8}
          height={height + 8}
          role="group"
          aria-label={words.map}
        >
          {scene.figures.map((figure) => (
            <FigureView key={figure.id} figure={figure} />
          ))}
        </svg>
      </Box>
      <chakra.p color="quiet" fontSize="12px" mt={1}>
        {words.mapLegend}{" "}
        <Button size="xs" variant="outline" onClick={save}>
          SVG
        </Button>
      </chakra.p>
    </Box>
  );
}
