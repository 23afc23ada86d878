"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { useCallback } from "react";
import { text } from "../messages";
import { useUndoKeys } from "../version/useUndoKeys";
import { useVersion } from "../version/VersionContext";
import { FollowingPage } from "./FollowingPage";
import { HeadSentence } from "./HeadSentence";
import { SheetBar } from "./SheetBar";
import { SheetGrid } from "./SheetGrid";
import { startRow } from "./sheetActions";
import { useSheetStore } from "./sheetStore";
import { useSheet } from "./useSheet";

/** The stage where one writes: the process as a table of steps, the drawing below it following along. */
export function StepsStage() {
  const info = useVersion((state) => state.info);
  const sheet = useSheet();
  const row = useSheetStore((state) => state.row);
  const newRow = useSheetStore((state) => state.newRow);
  useUndoKeys();
  const chosenRow = sheet.rows[sheet.indexOf(row)];
  const chosen = chosenRow?.kind === "step" || chosenRow?.kind === "stop" ? chosenRow.element : undefined;
  const { indexOf } = sheet;
  const choose = useCallback(
    (element: string) => {
      if (indexOf(element) >= 0) useSheetStore.getState().go(element, "step");
    },
    [indexOf],
  );
  return (
    <>
      <chakra.h1 srOnly>{`${text.stages.steps}: ${info.process.name}, ${info.version.name}`}</chakra.h1>
      <HeadSentence sheet={sheet} end={null} />
      <Flex direction="column" flex="1.55 1 0" minH={0} position="relative">
        <SheetGrid sheet={sheet} onPaste={() => {}} />
        {sheet.rows.length === 0 && !newRow && (
          <Flex position="absolute" inset="60px 0 0" justify="center" pointerEvents="none">
            <chakra.p color="quiet" textAlign="center" maxW="60ch">
              {text.steps.empty}{" "}
              <chakra.button
                type="button"
                color="accent"
                pointerEvents="auto"
                textDecoration="underline"
                cursor="pointer"
                onClick={() => startRow("behind")}
              >
                {text.steps.first}
              </chakra.button>
            </chakra.p>
          </Flex>
        )}
      </Flex>
      <SheetBar sheet={sheet} />
      <Flex flex="1 1 0" minH={0} direction="column">
        <FollowingPage model={sheet.model} diagram={sheet.diagram} chosen={chosen} onChoose={choose} />
      </Flex>
    </>
  );
}
