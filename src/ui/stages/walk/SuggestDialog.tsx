"use client";
import { Box, Button, chakra, Dialog, Portal } from "@chakra-ui/react";
import { useMemo, useState } from "react";
import { type Id, type Model, nameOf } from "@/core/model";
import { type SuggestedWalk, suggestWalks, testOf, type World, walk } from "@/core/tokens";
import { closedOnPurpose } from "../../controls/dialogs";
import { complain } from "../../controls/notices";
import { text, typeWord } from "../../messages";
import { useVersion } from "../../version/VersionContext";
import { keepWalks } from "./keptActs";

/** Walks that together go along every flow, to be kept all at once. */
export function SuggestDialog({
  world,
  process,
  onClose,
  onKept,
}: {
  readonly world: World;
  readonly process: Id;
  readonly onClose: () => void;
  readonly onKept: () => Promise<void>;
}) {
  const version = useVersion((state) => state.info.version.id);
  const { model } = world;
  const { walks, missed, isKnown } = useMemo(() => suggestWalks(model, process), [model, process]);
  const [left, setLeft] = useState<ReadonlySet<Id>>(new Set());
  const named = walks.map((one, at) => ({ ...one, name: nameOfWalk(model, one, at) }));
  const kept = named.filter((one) => !left.has(one.because));
  const keep = async () => {
    const tests = kept.map(({ name, choices }) => ({
      name,
      content: testOf(world, process, walk(world, process, choices), true),
    }));
    await keepWalks(version, tests);
    await onKept();
    onClose();
  };
  return (
    <Dialog.Root
      {...closedOnPurpose}
      open
      onOpenChange={({ open }) => !open && onClose()}
      placement="center"
      scrollBehavior="inside"
    >
      <Portal>
        <Dialog.Backdrop bg="rgb(30 36 48 / 35%)" />
        <Dialog.Positioner>
          <Dialog.Content bg="paper" color="ink" borderRadius="6px" maxW="560px">
            <Dialog.Header pb={2}>
              <Dialog.Title fontSize="16px">{text.walk.suggest}</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>
              <chakra.p mb={3}>{text.walk.needed(walks.length)}</chakra.p>
              <Box as="ul" listStyleType="none">
                {named.map((one) => (
                  <chakra.li key={one.because} py={1.5} borderTopWidth="1px" borderColor="line">
                    <chakra.label display="flex" gap={2} alignItems="baseline" cursor="pointer">
                      <input
                        type="checkbox"
                        checked={!left.has(one.because)}
                        onChange={() => {
                          const next = new Set(left);
                          if (!next.delete(one.because)) next.add(one.because);
                          setLeft(next);
                        }}
                      />
                      <chakra.span flex="1">{one.name}</chakra.span>
                      <chakra.span color={one.outcome === "completed" ? "quiet" : "trouble"} fontSize="13px">
                        {text.walk.suggested(one.covers.length, one.outcome)}
                      </chakra.span>
                    </chakra.label>
                  </chakra.li>
                ))}
              </Box>
              {missed.length > 0 && (
                <chakra.p mt={3} color="trouble">
                  {text.walk.missed(
                    missed.map((flow) => flowWords(model, flow)),
                    isKnown,
                  )}
                </chakra.p>
              )}
            </Dialog.Body>
            <Dialog.Footer>
              <Button size="sm" variant="ghost" onClick={onClose}>
                {text.dialog.cancel}
              </Button>
              <Button
                size="sm"
                bg="accent"
                color="paper"
                disabled={kept.length === 0}
                onClick={() => keep().catch(complain)}
              >
                {text.walk.keepAll(kept.length)}
              </Button>
            </Dialog.Footer>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}

/** A walk is named after what it was made for: the answer or the event that no walk before it takes. */
function nameOfWalk(model: Model, { because }: SuggestedWalk, at: number): string {
  if (at === 0) return text.walk.mainPath;
  const flow = model.elements.get(because);
  const source = model.elements.get(String(flow?.sourceRef));
  const answer = nameOf(model, because);
  const from = source ? nameOf(model, source.id) || typeWord(source.type) : "";
  if (answer) return `${from} ${answer}`;
  if (source?.type === "boundaryEvent") return from;
  return flowWords(model, because);
}

/** A flow by what it goes from and to. */
function flowWords(model: Model, id: Id): string {
  const flow = model.elements.get(id);
  const end = (node: Id) => nameOf(model, node) || typeWord(model.elements.get(node)?.type ?? "");
  return text.walk.byWayOf(end(String(flow?.sourceRef)), end(String(flow?.targetRef)));
}
