"use client";
import { Button, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { type BookletKind, bookletKinds } from "@/core/booklet";
import { saveFile } from "../kernel/ask";
import { text } from "../messages";
import { complain } from "./notices";

const words = text.handbook;

/** A document to be taken as a file: a button for each kind; while one is made the others wait. */
export function BookletKinds(props: {
  /** Where it is asked for. */
  readonly path: string;
  /** What is sent, besides the kind; undefined where there is nothing to be had. */
  readonly input: object | undefined;
  /** What the file is called, without its ending. */
  readonly name: string;
  /** What has to be done before it is asked for: what was changed has to have arrived. */
  readonly before?: () => Promise<unknown>;
}) {
  const { path, input, name, before } = props;
  const [making, setMaking] = useState<BookletKind>();
  const give = async (kind: BookletKind) => {
    setMaking(kind);
    try {
      await before?.();
      await saveFile(path, { ...input, kind }, `${name}.${kind}`);
    } catch (error) {
      complain(error);
    }
    setMaking(undefined);
  };
  return (
    <Flex gap={2} wrap="wrap" role="group" aria-label={words.give}>
      {bookletKinds.map((kind) => (
        <Button
          key={kind}
          size="xs"
          variant="outline"
          title={words.kindTitles[kind]}
          loading={making === kind}
          disabled={!input || making !== undefined}
          onClick={() => void give(kind)}
        >
          {words.kinds[kind]}
        </Button>
      ))}
    </Flex>
  );
}
