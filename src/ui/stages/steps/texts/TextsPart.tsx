"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useMemo, useRef, useState } from "react";
import { missingIn, type TextRow, textRows, textsAsCsv, textsFromCsv } from "@/core/capture";
import { languagesOf } from "@/core/model";
import { decodeText } from "@/core/table";
import { Choice } from "../../../controls/fields";
import { complain, tell } from "../../../controls/notices";
import { EmptyState } from "../../../controls/states";
import { giveFile } from "../../../kernel/ask";
import { reasons, text } from "../../../messages";
import { useVersion, useVersionStore } from "../../../version/VersionContext";
import { Parts } from "../Parts";
import { TextsRow } from "./TextsRow";

const words = text.texts;
/** More rows than these are shown when one asks for them. */
const atATime = 300;
const isLanguage = (code: string) => /^[A-Za-z]{2,3}(?:-[A-Za-z0-9]{2,8})*$/.test(code);

const isMissing = ({ own, told }: TextRow) =>
  (own.name !== "" && told.name === "") || (own.description !== "" && told.description === "");

/** The texts of the model beside those of another language, to be filled in here or elsewhere. */
export function TextsPart() {
  const model = useVersion((state) => state.model);
  const info = useVersion((state) => state.info);
  const store = useVersionStore();
  const [chosen, setChosen] = useState<string>();
  const [added, setAdded] = useState<readonly string[]>([]);
  const [typed, setTyped] = useState("");
  const [isOnlyMissing, setOnlyMissing] = useState(false);
  const [most, setMost] = useState(atATime);
  const picker = useRef<HTMLInputElement>(null);
  const languages = useMemo(() => [...new Set([...languagesOf(model), ...added])].sort(), [model, added]);
  const language = chosen !== undefined && languages.includes(chosen) ? chosen : languages[0];
  const rows = useMemo(() => (language === undefined ? [] : textRows(model, language)), [model, language]);
  // What is filled in while one looks at what is missing stays where it is.
  const [listed, setListed] = useState<ReadonlySet<string>>(new Set());
  const shown = isOnlyMissing ? rows.filter((row) => listed.has(row.element) || isMissing(row)) : rows;
  const showMissing = (isOn: boolean) => {
    setListed(new Set(isOn ? rows.filter(isMissing).map(({ element }) => element) : []));
    setOnlyMissing(isOn);
  };
  const add = () => {
    const code = typed.trim();
    if (!isLanguage(code)) return complain(new Error(words.noLanguage));
    setAdded((before) => [...before, code]);
    setChosen(code);
    setTyped("");
  };
  const load = async (file: File | undefined) => {
    if (!file || language === undefined) return;
    const read = textsFromCsv(model, language, decodeText(new Uint8Array(await file.arrayBuffer())));
    if (!read.ok) return complain(new Error(reasons(read.problems)));
    const { commands, unknown } = read.value;
    if (commands.length === 0) return tell({ description: words.nothingLoaded });
    if (store.getState().dispatch(...commands)) tell({ description: words.loaded(commands.length, unknown.length) });
  };
  const save = () => {
    if (language === undefined) return;
    const csv = new Blob([textsAsCsv(rows, language)], { type: "text/csv;charset=utf-8" });
    giveFile(csv, `${info.process.name} ${language}.csv`);
  };
  return (
    <Flex direction="column" flex="1" minH={0} overflow="auto" px={6} py={3} gap={3} data-testid="texts">
      <Flex gap={3} align="center" wrap="wrap">
        <chakra.h1 fontSize="16px" fontWeight="700">
          {words.title}
        </chakra.h1>
        <chakra.span flex="1" />
        <Parts part="languages" />
      </Flex>
      <chakra.p color="quiet" maxW="90ch">
        {words.explain}
      </chakra.p>
      <Flex gap={3} align="center" wrap="wrap">
        {language !== undefined && (
          <>
            <Choice
              label={words.language}
              value={language}
              options={languages.map((one) => [one, one] as const)}
              onChoose={setChosen}
            />
            <chakra.span data-testid="texts-missing">{words.missing(missingIn(rows))}</chakra.span>
            <chakra.label display="flex" gap={2}>
              <input type="checkbox" checked={isOnlyMissing} onChange={(event) => showMissing(event.target.checked)} />
              {words.onlyMissing}
            </chakra.label>
          </>
        )}
        <chakra.form
          display="flex"
          gap={2}
          onSubmit={(event) => {
            event.preventDefault();
            add();
          }}
        >
          <chakra.input
            aria-label={words.another}
            placeholder={words.anotherHint}
            value={typed}
            h="26px"
            w="170px"
            px={2}
            bg="paper"
            borderWidth="1px"
            borderColor="line"
            borderRadius="6px"
            onChange={(event) => setTyped(event.target.value)}
          />
          <Button type="submit" size="xs" variant="outline" disabled={typed.trim() === ""}>
            {words.add}
          </Button>
        </chakra.form>
        <chakra.span flex="1" />
        {language !== undefined && (
          <>
            <input
              ref={picker}
              type="file"
              hidden
              accept=".csv"
              onChange={(event) => {
                void load(event.target.files?.[0]);
                event.target.value = "";
              }}
            />
            <Button size="xs" variant="outline" onClick={() => picker.current?.click()}>
              {words.load}
            </Button>
            <Button size="xs" variant="outline" onClick={save}>
              {words.save}
            </Button>
          </>
        )}
      </Flex>
      {language === undefined ? (
        <EmptyState>{words.none}</EmptyState>
      ) : shown.length === 0 ? (
        <EmptyState>{rows.length === 0 ? words.nothing : words.nothingMissing}</EmptyState>
      ) : (
        <chakra.table
          borderCollapse="collapse"
          bg="paper"
          fontSize="13px"
          css={{
            "& th, & td": { border: "1px solid var(--chakra-colors-line)", textAlign: "left", padding: "3px 6px" },
          }}
        >
          <thead>
            <chakra.tr color="quiet" fontSize="12px">
              {[words.kind, words.own, words.name(language)].map((head) => (
                <chakra.th key={head} scope="col" fontWeight="400">
                  {head}
                </chakra.th>
              ))}
              <chakra.th scope="col" fontWeight="400">
                {words.own}
              </chakra.th>
              <chakra.th scope="col" fontWeight="400">
                {words.description(language)}
              </chakra.th>
            </chakra.tr>
          </thead>
          <tbody>
            {shown.slice(0, most).map((row) => (
              <TextsRow key={`${language} ${row.element}`} row={row} language={language} />
            ))}
          </tbody>
        </chakra.table>
      )}
      {shown.length > most && (
        <Button size="xs" variant="outline" alignSelf="flex-start" onClick={() => setMost(most + atATime)}>
          {words.more(shown.length - most)}
        </Button>
      )}
    </Flex>
  );
}
