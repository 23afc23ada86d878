"use client";
import { Button, chakra, Flex, Table } from "@chakra-ui/react";
import NextLink from "next/link";
import { useState } from "react";
import type { Model } from "@/core/model";
import { byRules, type Candidate, type CaseStyle, caseStyles, openApiOf } from "@/core/services";
import { Choice } from "../../controls/fields";
import { giveFile } from "../../kernel/ask";
import { text } from "../../messages";
import { useVersion } from "../../version/VersionContext";

const words = text.handoff.services;
/** How a person would write verbs and words to replace: by commas; a word and what stands for it by an equals sign. */
const listed = (said: string) =>
  said
    .split(",")
    .map((one) => one.trim())
    .filter((one) => one !== "");

/** Services that could be built, one for each lane, with their operations called as IT calls them. */
export function Candidates({
  model,
  candidates,
}: {
  readonly model: Model;
  readonly candidates: readonly Candidate[];
}) {
  const version = useVersion((state) => state.info.version.id);
  const [style, setStyle] = useState<CaseStyle>("camelCase");
  const [verbs, setVerbs] = useState("");
  const [replace, setReplace] = useState("");
  const rules = {
    style,
    verbs: listed(verbs),
    replace: listed(replace).flatMap((pair) => {
      const [from = "", to = ""] = pair.split("=").map((word) => word.trim());
      return from === "" ? [] : [[from, to] as const];
    }),
  };
  const field = (label: string, value: string, set: (value: string) => void, hint: string) => (
    <chakra.input
      aria-label={label}
      placeholder={hint}
      value={value}
      onChange={(event) => set(event.target.value)}
      h="26px"
      w="260px"
      px={2}
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      fontSize="13px"
    />
  );
  return (
    <>
      <Flex gap={3} mb={3} align="center" wrap="wrap">
        <Choice
          label={words.style}
          value={style}
          options={caseStyles.map((one) => [one, one] as const)}
          onChoose={setStyle}
        />
        {field(words.verbs, verbs, setVerbs, words.verbsHint)}
        {field(words.replace, replace, setReplace, words.replaceHint)}
      </Flex>
      <Table.Root size="sm" bg="paper" borderWidth="1px" borderColor="line" data-testid="candidates">
        <Table.Header>
          <Table.Row bg="sheet">
            {[words.candidate, words.from, words.operation].map((head) => (
              <Table.ColumnHeader key={head} color="quiet">
                {head}
              </Table.ColumnHeader>
            ))}
            <Table.ColumnHeader>
              <chakra.span srOnly>{words.export}</chakra.span>
            </Table.ColumnHeader>
          </Table.Row>
        </Table.Header>
        <Table.Body>
          {candidates.flatMap((candidate) =>
            candidate.operations.map((operation, at) => {
              const ruled = byRules(operation.name, rules);
              return (
                <Table.Row key={`${candidate.from} ${operation.from}`} bg="paper">
                  <Table.Cell fontWeight="700">{at === 0 ? candidate.name : ""}</Table.Cell>
                  <Table.Cell>
                    <NextLink
                      href={`/v/${encodeURIComponent(version)}/diagram?element=${encodeURIComponent(operation.from)}`}
                    >
                      <chakra.span color="accent" _hover={{ textDecoration: "underline" }}>
                        {operation.name}
                      </chakra.span>
                    </NextLink>
                  </Table.Cell>
                  <Table.Cell>
                    <chakra.code>{ruled.name}</chakra.code>
                    {!ruled.beginsWithVerb && (
                      <chakra.span color="attention" ms={2}>
                        {words.noVerb}
                      </chakra.span>
                    )}
                  </Table.Cell>
                  <Table.Cell textAlign="end">
                    {at === 0 && (
                      <Button
                        size="xs"
                        variant="outline"
                        aria-label={words.exportNamed(candidate.name)}
                        onClick={() =>
                          giveFile(
                            new Blob(
                              [
                                `${JSON.stringify(
                                  openApiOf(model, candidate, (name) => byRules(name, rules).name),
                                  null,
                                  2,
                                )}\n`,
                              ],
                              {
                                type: "application/json",
                              },
                            ),
                            `${byRules(candidate.name, { ...rules, style: "kebab-case", verbs: [] }).name || "service"}.json`,
                          )
                        }
                      >
                        {words.export}
                      </Button>
                    )}
                  </Table.Cell>
                </Table.Row>
              );
            }),
          )}
        </Table.Body>
      </Table.Root>
    </>
  );
}
