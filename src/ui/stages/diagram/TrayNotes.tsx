"use client";
import { chakra, Flex } from "@chakra-ui/react";
import dynamic from "next/dynamic";
import { useState } from "react";
import {
  documentationIn,
  documentedIn,
  type Element,
  isPlainText,
  plainOf,
  type RichNode,
  textOfPlain,
} from "@/core/model";
import { Choice, TextField } from "../../controls/fields";
import { locale, text } from "../../messages";
import { useVersionStore } from "../../version/VersionContext";
import { RichTextView } from "./RichTextView";

const RichTextField = dynamic(() => import("./RichTextField").then((file) => file.RichTextField), {
  loading: () => null,
});

/** Languages that are offered; a file may bring others. */
const offered = ["en", "de", "fr", "es", "it", "nl", "pl", "pt"];
const names = () => new Intl.DisplayNames([locale()], { type: "language" });

/** What somebody who does a step has to know: plain or with emphasis, lists and links, in each language for which it is kept. */
export function TrayNotes({ element }: { readonly element: Element }) {
  const { dispatch } = useVersionStore().getState();
  const [language, setLanguage] = useState("");
  const [writing, setWriting] = useState(false);
  const content = documentationIn(element, language || undefined);
  const written = documentedIn(element);
  const isPlain = isPlainText(content);
  const set = (next: RichNode) =>
    dispatch({ type: "describeIn", id: element.id, language: language || null, text: next as never });
  const choices = [...new Set([...written, ...offered])];
  return (
    <>
      <Flex gap={1} mb={1} align="center" wrap="wrap">
        <Choice
          label={text.tray.language}
          value={language}
          options={[
            ["", text.tray.ownLanguage],
            ...choices.map((one) => [one, `${names().of(one) ?? one}${written.includes(one) ? " ✓" : ""}`] as const),
          ]}
          onChoose={(next) => {
            setLanguage(next);
            setWriting(false);
          }}
        />
        <chakra.button
          type="button"
          aria-pressed={writing}
          color="accent"
          minH="24px"
          px={1}
          cursor="pointer"
          onClick={() => setWriting(!writing)}
        >
          {writing ? text.tray.formatDone : text.tray.format}
        </chakra.button>
      </Flex>
      {writing ? (
        <RichTextField key={language} label={text.tray.notes} value={content} onCommit={set} />
      ) : isPlain ? (
        // A field of its own for each language: what was just typed in one is not taken for the other one's.
        <TextField
          key={language}
          label={text.tray.notes}
          placeholder={text.tray.notesHint}
          lines={5}
          value={plainOf(content)}
          onCommit={(typed) => set(textOfPlain(typed))}
        />
      ) : (
        <chakra.div
          role="button"
          aria-label={text.tray.formatEdit}
          tabIndex={0}
          cursor="text"
          bg="paper"
          borderWidth="1px"
          borderColor="line"
          borderRadius="6px"
          px={2}
          py={1}
          fontSize="13px"
          onClick={() => setWriting(true)}
          onKeyDown={(event) => {
            if (event.key !== "Enter") return;
            event.stopPropagation();
            setWriting(true);
          }}
        >
          <RichTextView node={content} />
        </chakra.div>
      )}
    </>
  );
}
