"use client";
import { Box, Button, Dialog, Flex, Portal, Table, Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { sceneOf } from "@/core/drawing";
import { type Model, type StoredModel, trustStored } from "@/core/model";
import { ask } from "../api";
import { SceneView } from "../canvas/SceneView";
import { complain, toaster } from "../controls/toaster";
import { text } from "../messages";
import { useVersion, useVersionStore } from "./VersionContext";

interface RevisionRow {
  readonly number: number;
  readonly reason: string;
  readonly at: string;
  readonly member: string;
}

/** Kept states of a version: look at one, put one back. */
export function RevisionsDialog({ onClose, onKeep }: { readonly onClose: () => void; readonly onKeep: () => void }) {
  const version = useVersion((state) => state.info.version.id);
  const store = useVersionStore();
  const [rows, setRows] = useState<readonly RevisionRow[] | null>(null);
  const [shown, setShown] = useState<{ number: number; model: Model } | null>(null);
  useEffect(() => {
    ask<{ revisions: RevisionRow[] }>("listRevisions", { version })
      .then((answer) => setRows(answer.revisions))
      .catch(complain);
  }, [version]);
  const look = async (number: number) => {
    const answer = await ask<{ model: StoredModel }>("openRevision", { version, number });
    setShown({ number, model: trustStored(answer.model) });
  };
  const restore = async (number: number) => {
    await store.getState().settled();
    await ask("restoreRevision", { version, number });
    await store.getState().reload();
    toaster.create({ description: text.version.restored(number) });
    onClose();
  };
  const page = shown && [...shown.model.diagrams].sort((a, b) => a.order - b.order)[0];
  return (
    <Dialog.Root
      open
      onOpenChange={({ open }) => !open && onClose()}
      size="lg"
      placement="center"
      scrollBehavior="inside"
    >
      <Portal>
        <Dialog.Backdrop bg="rgb(30 36 48 / 35%)" />
        <Dialog.Positioner>
          <Dialog.Content bg="paper" color="ink" borderRadius="6px">
            <Dialog.Header display="flex" justifyContent="space-between">
              <Dialog.Title fontSize="16px">{text.version.revisions}</Dialog.Title>
              <Button size="sm" variant="outline" onClick={onKeep}>
                {text.version.keep}
              </Button>
            </Dialog.Header>
            <Dialog.Body>
              {shown && page && (
                <Box mb={4}>
                  <Flex justify="space-between" align="center" mb={2}>
                    <Text color="quiet">{text.version.reading(shown.number)}</Text>
                    <Button size="xs" variant="ghost" onClick={() => setShown(null)}>
                      {text.version.back}
                    </Button>
                  </Flex>
                  <SceneView
                    scene={sceneOf(shown.model, page)}
                    height={240}
                    label={text.version.reading(shown.number)}
                  />
                </Box>
              )}
              {rows?.length === 0 && <Text color="quiet">{text.version.revisionsNone}</Text>}
              {rows && rows.length > 0 && (
                <Table.Root size="sm">
                  <Table.Body>
                    {rows.map((row) => (
                      <Table.Row key={row.number} bg="paper">
                        <Table.Cell fontWeight="700">{row.number}</Table.Cell>
                        <Table.Cell>{row.reason}</Table.Cell>
                        <Table.Cell color="quiet">{row.member}</Table.Cell>
                        <Table.Cell color="quiet">
                          {new Date(row.at).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" })}
                        </Table.Cell>
                        <Table.Cell textAlign="end" whiteSpace="nowrap">
                          <Button size="xs" variant="ghost" onClick={() => look(row.number).catch(complain)}>
                            {text.version.look}
                          </Button>
                          <Button size="xs" variant="ghost" onClick={() => restore(row.number).catch(complain)}>
                            {text.version.restore}
                          </Button>
                        </Table.Cell>
                      </Table.Row>
                    ))}
                  </Table.Body>
                </Table.Root>
              )}
            </Dialog.Body>
            <Dialog.Footer>
              <Button variant="ghost" onClick={onClose}>
                {text.dialog.close}
              </Button>
            </Dialog.Footer>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
