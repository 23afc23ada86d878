"use client";
import { Box, Button, chakra } from "@chakra-ui/react";
import { useState } from "react";
import type { ProcessGrowth } from "@/contract/brief";
import { DialogFrame } from "../../controls/DialogFrame";
import { text } from "../../messages";

/** What is chosen of it: marks that stay unbuilt, marks whose elements are renamed, elements that go. */
export interface BuildChoice {
  readonly leave?: string[];
  readonly rename?: string[];
  readonly drop?: { version: string; element: string }[];
}

interface GrowthDialogProps {
  readonly told: readonly ProcessGrowth[];
  readonly onBuild: (chosen: BuildChoice) => void;
  readonly onClose: () => void;
}

interface Row {
  readonly key: string;
  readonly words: string;
}

/** Before processes are built again: what is new, what is called otherwise, what has lost its words. Each is taken or left. */
export function GrowthDialog({ told, onBuild, onClose }: GrowthDialogProps) {
  // New steps and names are taken unless somebody says no; nothing is taken out unless somebody says so.
  const [turned, setTurned] = useState<ReadonlySet<string>>(new Set());
  const turn = (key: string) =>
    setTurned((before) => new Set(before.has(key) ? [...before].filter((one) => one !== key) : [...before, key]));
  const build = () =>
    onBuild({
      leave: told.flatMap((one) => one.added.map(({ mark }) => mark).filter((mark) => turned.has(`add ${mark}`))),
      rename: told.flatMap((one) => one.renamed.map(({ mark }) => mark).filter((mark) => !turned.has(`name ${mark}`))),
      drop: told.flatMap(({ version, lost }) =>
        lost.flatMap(({ element }) => (turned.has(`drop ${version} ${element}`) ? [{ version, element }] : [])),
      ),
    });
  return (
    <DialogFrame
      title={text.brief.growth}
      width="520px"
      onClose={onClose}
      footer={
        <>
          <Button size="sm" variant="ghost" onClick={onClose}>
            {text.dialog.cancel}
          </Button>
          <Button size="sm" bg="accent" color="onAccent" onClick={build}>
            {text.brief.follow}
          </Button>
        </>
      }
    >
      <chakra.p color="quiet" mb={3}>
        {text.brief.growthExplain}
      </chakra.p>
      {told.map((one) => {
        const added = one.added.map(
          ({ mark, name, lane }): Row => ({ key: `add ${mark}`, words: text.brief.inLane(name, lane) }),
        );
        const renamed = one.renamed.map(
          ({ mark, now, to }): Row => ({ key: `name ${mark}`, words: text.brief.rename(now, to) }),
        );
        const lost = one.lost.map(
          ({ element, name }): Row => ({
            key: `drop ${one.version} ${element}`,
            words: text.brief.takeOut(name || element),
          }),
        );
        if (added.length + renamed.length + lost.length === 0) return null;
        return (
          <Box as="section" key={one.frame} mb={3}>
            <chakra.h3 fontWeight="600">{one.name}</chakra.h3>
            <Rows title={text.brief.added} rows={added} isOn={(key) => !turned.has(key)} turn={turn} />
            <Rows title={text.brief.renamed} rows={renamed} isOn={(key) => !turned.has(key)} turn={turn} />
            <Rows title={text.brief.lost} rows={lost} isOn={(key) => turned.has(key)} turn={turn} />
          </Box>
        );
      })}
    </DialogFrame>
  );
}

interface RowsProps {
  readonly title: string;
  readonly rows: readonly Row[];
  readonly isOn: (key: string) => boolean;
  readonly turn: (key: string) => void;
}

function Rows({ title, rows, isOn, turn }: RowsProps) {
  if (rows.length === 0) return null;
  return (
    <Box as="fieldset" mt={1}>
      <chakra.legend fontSize="12px" color="quiet">
        {title}
      </chakra.legend>
      {rows.map(({ key, words }) => (
        <chakra.label key={key} display="flex" gap={2} alignItems="center" py="2px" fontSize="13px">
          <input type="checkbox" checked={isOn(key)} onChange={() => turn(key)} />
          {words}
        </chakra.label>
      ))}
    </Box>
  );
}
