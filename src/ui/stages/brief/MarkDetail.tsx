"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import type { Editor } from "@tiptap/react";
import { markKinds } from "@/core/brief";
import { isFlowNode, nameOf } from "@/core/model";
import { Choice } from "../../controls/fields";
import { PageLink } from "../../controls/PageLink";
import { text, typeWord } from "../../messages";
import { useBrief } from "../../version/briefStore";
import { useVersion, useVersionStore } from "../../version/VersionContext";
import { kindWords } from "./markKeys";
import { changeKind, removeMark } from "./pageActions";
import type { Reading } from "./useReading";

/** The mark one is at: what it is, what stands for it in the models, and ties made and undone by hand. */
export function MarkDetail({ editor, told }: { readonly editor: Editor | null; readonly told: Reading }) {
  const selected = useBrief((state) => state.selected);
  const model = useVersion((state) => state.model);
  const version = useVersion((state) => state.info.version.id);
  const { dispatch } = useVersionStore().getState();
  const mark = told.reading.marks.find((one) => one.id === selected);
  if (!mark || !editor) return null;
  const links = told.links.get(mark.id) ?? [];
  const elements = [...model.elements].filter(
    (element) =>
      nameOf(model, element.id) !== "" &&
      (isFlowNode(element.type) ||
        ["lane", "participant", "dataObjectReference", "sequenceFlow"].includes(element.type)) &&
      !links.some((link) => link.version === version && link.element === element.id),
  );
  return (
    <Box
      as="section"
      aria-label={text.brief.selected}
      borderBottomWidth="1px"
      borderColor="line"
      pb={3}
      data-testid="mark-detail"
    >
      <Flex gap={2} align="center" mb={1}>
        <Choice
          label={text.brief.kind}
          value={mark.kind}
          options={markKinds.map((kind) => [kind, kindWords(kind)] as const)}
          onChoose={(kind) => changeKind(editor, [mark.id], kind)}
        />
        <chakra.span truncate flex="1" title={mark.text}>
          “{mark.text}”
        </chakra.span>
        <Button size="2xs" variant="ghost" onClick={() => removeMark(editor, mark.id)}>
          {text.brief.unmark}
        </Button>
      </Flex>
      {links.map((link) => (
        <Flex key={`${link.version}/${link.element}`} gap={2} align="center" fontSize="13px">
          <chakra.span color="good" aria-hidden>
            ●
          </chakra.span>
          <PageLink
            href={`/v/${encodeURIComponent(link.version)}/diagram?element=${encodeURIComponent(link.element)}`}
            color="accent"
            textDecoration="underline"
            truncate
            flex="1"
          >
            {link.name || text.brief.unnamed}
          </PageLink>
          {link.version === version && (
            <Button
              size="2xs"
              variant="ghost"
              onClick={() => dispatch({ type: "unlinkWords", id: link.element, marks: [mark.id] })}
            >
              {text.brief.untie}
            </Button>
          )}
        </Flex>
      ))}
      <chakra.select
        aria-label={text.brief.tie}
        value=""
        h="26px"
        w="100%"
        mt={1}
        px={1}
        bg="paper"
        color="quiet"
        borderWidth="1px"
        borderColor="line"
        borderRadius="6px"
        fontSize="13px"
        onChange={(event) => dispatch({ type: "linkWords", id: event.target.value, marks: [mark.id] })}
      >
        <option value="">{text.brief.tie}</option>
        {elements.map((element) => (
          <option key={element.id} value={element.id}>
            {`${nameOf(model, element.id)} (${typeWord(element.type)})`}
          </option>
        ))}
      </chakra.select>
    </Box>
  );
}
