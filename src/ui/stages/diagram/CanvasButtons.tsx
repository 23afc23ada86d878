"use client";
import { Button } from "@chakra-ui/react";
import { memo, type ReactNode, type RefObject, useEffect, useState } from "react";
import type { CanvasHandle } from "../../canvas/Canvas";
import { Keycap } from "../../controls/Keycap";
import { text } from "../../messages";
import { useDiagram } from "../../version/diagramStore";

function FootButton(props: {
  readonly label?: string;
  readonly expanded?: boolean;
  readonly onClick: () => void;
  readonly children: ReactNode;
}) {
  return (
    <Button
      size="xs"
      variant="outline"
      bg="paper"
      borderColor="line"
      aria-label={props.label}
      aria-expanded={props.expanded}
      onClick={props.onClick}
    >
      {props.children}
    </Button>
  );
}

/** What the page is looked at with: fit, scale, outline, matrix, keys. */
export const CanvasButtons = memo(function CanvasButtons({
  canvas,
  onFit,
}: {
  readonly canvas: RefObject<CanvasHandle | null>;
  readonly onFit: () => void;
}) {
  const outlineOpen = useDiagram((state) => state.outlineOpen);
  const { set } = useDiagram.getState();
  const [scale, setScale] = useState(1);
  // The scale changes outside React, with each movement of the wheel; the number may follow at its leisure.
  useEffect(() => {
    const timer = setInterval(() => setScale(canvas.current?.viewport.transform.current.k ?? 1), 250);
    return () => clearInterval(timer);
  }, [canvas]);
  return (
    <>
      <FootButton onClick={onFit}>
        {text.diagram.fit} <Keycap>0</Keycap>
      </FootButton>
      <FootButton label={text.diagram.zoom} onClick={() => canvas.current?.viewport.zoomTo(1)}>
        {Math.round(scale * 100)} %
      </FootButton>
      <FootButton expanded={outlineOpen} onClick={() => set({ outlineOpen: !outlineOpen })}>
        {text.diagram.outline} <Keycap>O</Keycap>
      </FootButton>
      <FootButton onClick={() => set({ matrixOpen: true })}>{text.matrix.short}</FootButton>
      <FootButton onClick={() => set({ lensesOpen: true })}>{text.lenses.title}</FootButton>
      <FootButton onClick={() => set({ keysOpen: true })}>
        {text.shell.keys} <Keycap>?</Keycap>
      </FootButton>
    </>
  );
});
