"use client";
import { Button, chakra } from "@chakra-ui/react";
import { DialogFrame } from "../../controls/DialogFrame";
import { text } from "../../messages";
import type { Refused } from "./useTakeOver";
import { Words } from "./Words";

/** A change that hangs on others: what they are, and whether they are to come along. */
export function TakeDialog({
  refused,
  title,
  onAlong,
  onAnyway,
  onClose,
}: {
  readonly refused: Refused;
  /** Of the version that would be changed. */
  readonly title: string;
  readonly onAlong: () => void;
  /** Takes them over although the outcome has errors that neither side has. */
  readonly onAnyway: () => void;
  readonly onClose: () => void;
}) {
  return (
    <DialogFrame
      title={text.compare.hangsTogether}
      width="560px"
      onClose={onClose}
      footer={
        <>
          <Button variant="ghost" onClick={onClose}>
            {text.dialog.cancel}
          </Button>
          {refused.errors.length > 0 && (
            <Button variant="outline" onClick={onAnyway}>
              {text.compare.takeAnyway}
            </Button>
          )}
          {refused.along.length > 0 && (
            <Button bg="accent" color="onAccent" onClick={onAlong}>
              {text.compare.takeAlong(refused.along.length + refused.keys.length, title)}
            </Button>
          )}
        </>
      }
    >
      <chakra.p mb={3}>{refused.message}</chakra.p>
      {refused.errors.length > 0 && (
        <chakra.ul ps={5} mb={3} color="trouble">
          {refused.errors.slice(0, 5).map((message) => (
            <li key={message}>{message}</li>
          ))}
        </chakra.ul>
      )}
      {refused.errors.length > 0 && refused.along.length > 0 && <chakra.p mb={2}>{text.compare.curedBy}</chakra.p>}
      <chakra.ul listStyleType="none">
        {refused.along.map((group) => (
          <chakra.li key={group.key} py={1} borderTopWidth="1px" borderColor="line">
            <Words said={group.said} />
          </chakra.li>
        ))}
      </chakra.ul>
    </DialogFrame>
  );
}
