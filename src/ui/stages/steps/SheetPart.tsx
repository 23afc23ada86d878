"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { Download } from "lucide-react";
import dynamic from "next/dynamic";
import { useCallback, useMemo, useRef } from "react";
import { headOf } from "@/core/capture";
import { wordsOf } from "@/core/model";
import { text } from "../../messages";
import { useVersion } from "../../version/VersionContext";
import { FollowingPage } from "./FollowingPage";
import { HeadSentence } from "./HeadSentence";
import { Parts } from "./Parts";
import { SheetBar } from "./SheetBar";
import { SheetGrid } from "./SheetGrid";
import { startRow } from "./sheetActions";
import { useSheetStore } from "./sheetStore";
import { usePasting } from "./usePasting";
import { useSheet } from "./useSheet";

// Its own "loading" keeps the stage around it, and the focus in it, as they are.
const InTheBrief = dynamic(() => import("../../version/InTheBrief").then((file) => file.InTheBrief), {
  loading: () => null,
});

/** The same object as long as it says the same, so that what shows it need not be drawn again. */
function useKept<Value>(value: Value): Value {
  const kept = useRef(value);
  if (JSON.stringify(kept.current) !== JSON.stringify(value)) kept.current = value;
  return kept.current;
}

/** The stage where one writes: the process as a table of steps, the drawing below it following along. */
export function SheetPart() {
  const info = useVersion((state) => state.info);
  const sheet = useSheet();
  const current = useRef(sheet);
  current.current = sheet;
  const row = useSheetStore((state) => state.row);
  const newRow = useSheetStore((state) => state.newRow);
  const estimates = useSheetStore((state) => state.estimates);
  const pasting = usePasting(current);
  const chosenRow = sheet.rows[sheet.indexOf(row)];
  const chosen = chosenRow?.kind === "step" || chosenRow?.kind === "stop" ? chosenRow.element : undefined;
  const element = chosen === undefined ? undefined : sheet.model.elements.get(chosen);
  const taken = element && wordsOf(element).length > 0 ? element : undefined;
  const { indexOf } = sheet;
  const choose = useCallback(
    (element: string) => {
      if (indexOf(element) >= 0) useSheetStore.getState().go(element, "step");
    },
    [indexOf],
  );
  const head = useKept(headOf(sheet.model, sheet.process));
  const processes = useKept(sheet.processes.map(({ id, name }) => ({ id, name })));
  const steps = sheet.rows.filter((row) => row.kind === "step" && row.number !== "").length;
  const paths = sheet.rows.filter((row) => row.kind === "path").length;
  const exportPath = `/api/export?version=${encodeURIComponent(info.version.id)}&format=csv&process=${encodeURIComponent(sheet.process)}&name=${encodeURIComponent(`${info.process.name} ${info.version.name}`)}`;
  const end = useMemo(
    () => (
      <>
        <Parts part="sheet" />
        <Button
          size="xs"
          variant="outline"
          bg={estimates ? "accentSoft" : "paper"}
          borderColor={estimates ? "accent" : "line"}
          flexShrink={0}
          aria-pressed={estimates}
          onClick={() => useSheetStore.getState().showEstimates(!estimates)}
        >
          {text.steps.estimates}
        </Button>
        <Button asChild size="xs" variant="outline" bg="paper" borderColor="line" flexShrink={0}>
          <a href={exportPath} download aria-label={text.steps.exportFile}>
            <Download size={14} aria-hidden /> {text.steps.file}
          </a>
        </Button>
      </>
    ),
    [estimates, exportPath],
  );
  return (
    <>
      <chakra.h1 srOnly>{`${text.stages.steps}: ${info.process.name}, ${info.version.name}`}</chakra.h1>
      <HeadSentence head={head} processes={processes} current={current} end={end} />
      <Flex direction="column" flex="1.55 1 0" minH={0} position="relative">
        <SheetGrid sheet={sheet} />
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
      <SheetBar current={current} steps={steps} paths={paths} />
      <Flex flex="1 1 0" minH={0} direction="column" position="relative">
        {info.brief && (
          <Flex minH="30px" gap={2} px={3} py={1} flexShrink={0} bg="paper" borderBottomWidth="1px" borderColor="line">
            <chakra.span color="quiet" flexShrink={0}>
              {text.brief.inBrief}
            </chakra.span>
            <Box minW={0}>
              {taken ? (
                <InTheBrief element={taken} />
              ) : (
                <chakra.span color="quiet">{text.steps.notInBrief}</chakra.span>
              )}
            </Box>
          </Flex>
        )}
        {pasting}
        <FollowingPage model={sheet.model} diagram={sheet.diagram} chosen={chosen} onChoose={choose} />
      </Flex>
    </>
  );
}
