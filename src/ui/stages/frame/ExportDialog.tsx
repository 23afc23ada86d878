"use client";
import { Box, Button, Dialog, Portal } from "@chakra-ui/react";
import { useMemo, useState } from "react";
import { kindsIn } from "@/core/commands";
import { type Paper, planPaper, sceneOfSome } from "@/core/drawing";
import { withLenses, withLensLegend } from "@/core/lens";
import { useScene } from "../../canvas/useScene";
import { closedOnPurpose } from "../../controls/dialogs";
import { FormRow } from "../../controls/FormRow";
import { Choice } from "../../controls/fields";
import { complain } from "../../controls/notices";
import { saveFile } from "../../kernel/ask";
import { text } from "../../messages";
import { useDiagram } from "../../version/diagramStore";
import { useShownLenses } from "../../version/lenses/useLenses";
import { useVersion, useVersionStore } from "../../version/VersionContext";
import { ExportPreview } from "./ExportPreview";

type Format = "png" | "pdf" | "svg";

/** A page as a picture or on paper: what, how large, and off it goes. */
export function ExportDialog({ onClose }: { readonly onClose: () => void }) {
  const store = useVersionStore();
  const info = useVersion((state) => state.info);
  const model = useVersion((state) => state.model);
  const selection = useDiagram((state) => state.selection);
  const page = useDiagram((state) => state.page);
  const [format, setFormat] = useState<Format>("pdf");
  const [scale, setScale] = useState("2");
  const [paper, setPaper] = useState("A4");
  const [spread, setSpread] = useState("fit");
  const [legend, setLegend] = useState("yes");
  const [part, setPart] = useState(selection.length > 1 ? "selection" : "page");
  const [busy, setBusy] = useState(false);
  const pages = [...model.diagrams].sort((a, b) => a.order - b.order);
  const [diagram, setDiagram] = useState(pages.find((one) => one.id === page)?.id ?? pages[0]?.id ?? "");
  const words = text.exporting;
  const save = async () => {
    setBusy(true);
    try {
      await store.getState().settled();
      const name = `${info.process.name} ${info.version.name}`;
      const options = { scale: Number(scale), paper, spread, legend: legend === "yes" };
      const elements = part === "selection" ? selection : [];
      const lenses = shown.map(({ lens, marked }) => ({
        ...{ name: lens.name, pen: lens.pen, line: lens.line, sign: lens.sign },
        marked: [...marked],
      }));
      const input = { version: info.version.id, format, diagram, name, elements, lenses, ...options };
      await saveFile("/api/export", input, `${name}.${format}`);
      onClose();
    } catch (error) {
      complain(error);
      setBusy(false);
    }
  };
  const isPaper = format === "pdf";
  const whole = useScene(model, model.diagrams.get(diagram));
  const shown = useShownLenses();
  const scene = useMemo(() => {
    const some = part === "selection" ? sceneOfSome(whole, new Set(selection)) : whole;
    return withLensLegend(withLenses(some, shown), shown);
  }, [whole, part, selection, shown]);
  const plan = useMemo(() => {
    const symbols = legend === "yes" ? kindsIn(model, scene).length : 0;
    return planPaper(scene.bounds, { paper: paper as Paper, spread: spread as "fit" | "tile", symbols });
  }, [model, scene, paper, spread, legend]);
  const choice = (
    label: string,
    value: string,
    options: readonly (readonly [string, string])[],
    onChoose: (value: string) => void,
  ) => (
    <FormRow label={label} width="110px">
      <Choice label={label} value={value} options={options} onChoose={onChoose} />
    </FormRow>
  );
  return (
    <Dialog.Root {...closedOnPurpose} open onOpenChange={({ open }) => !open && onClose()} placement="center">
      <Portal>
        <Dialog.Backdrop bg="rgb(30 36 48 / 35%)" />
        <Dialog.Positioner>
          <Dialog.Content bg="paper" color="ink" borderRadius="6px" maxW="820px">
            <Dialog.Header>
              <Dialog.Title fontSize="16px">{words.title}</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body display="flex" gap={6} flexWrap="wrap">
              <Box flex="1 1 300px" minW={0}>
                {choice(words.format, format, words.formats, (value) => setFormat(value as Format))}
                {pages.length > 1 &&
                  choice(
                    words.page,
                    diagram,
                    pages.map((one) => [one.id, one.name ?? one.id] as const),
                    setDiagram,
                  )}
                {selection.length > 0 &&
                  choice(
                    words.part,
                    part,
                    [
                      ["page", words.wholePage],
                      ["selection", words.selection(selection.length)],
                    ],
                    setPart,
                  )}
                {format === "png" && choice(words.scale, scale, words.scales, setScale)}
                {isPaper && (
                  <>
                    {choice(words.paper, paper, words.papers, setPaper)}
                    {choice(words.spread, spread, words.spreads, setSpread)}
                    {choice(words.legend, legend, words.legends, setLegend)}
                  </>
                )}
              </Box>
              <ExportPreview
                scene={scene}
                plan={isPaper ? plan : undefined}
                scale={format === "png" ? Number(scale) : 1}
                onTile={() => setSpread("tile")}
              />
            </Dialog.Body>
            <Dialog.Footer>
              <Button variant="ghost" onClick={onClose}>
                {text.dialog.cancel}
              </Button>
              <Button bg="accent" color="onAccent" disabled={busy} onClick={() => void save()}>
                {words.action(format.toUpperCase())}
              </Button>
            </Dialog.Footer>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
