"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { DialogFrame } from "../../controls/DialogFrame";
import { text } from "../../messages";

const words = text.live;
const formats = () =>
  [
    ["xes", words.logXes],
    ["csv", words.logCsv],
  ] as const;

/** The log of a run as a file, with or without what tells who it was. */
export function LogDialog(props: {
  readonly at: { readonly version: string; readonly run: string };
  readonly onClose: () => void;
}) {
  const { at, onClose } = props;
  const [isAnonymised, setAnonymised] = useState(false);
  const href = (as: string) =>
    `/api/log?${new URLSearchParams({ ...at, as, ...(isAnonymised && { anonymised: "1" }) })}`;
  return (
    <DialogFrame
      title={words.logTitle}
      width="440px"
      onClose={onClose}
      footer={
        <>
          <Button variant="outline" onClick={onClose}>
            {text.dialog.cancel}
          </Button>
          {formats().map(([as, label]) => (
            <Button key={as} asChild bg="accent" color="onAccent">
              <a href={href(as)} download>
                {label}
              </a>
            </Button>
          ))}
        </>
      }
    >
      <Flex direction="column" gap={3}>
        <chakra.p color="quiet">{words.logExplain}</chakra.p>
        <chakra.label display="flex" gap={2} alignItems="center">
          <input type="checkbox" checked={isAnonymised} onChange={(event) => setAnonymised(event.target.checked)} />
          {words.anonymised}
        </chakra.label>
      </Flex>
    </DialogFrame>
  );
}
