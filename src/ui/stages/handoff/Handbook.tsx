"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { useEffect, useMemo, useState } from "react";
import { home } from "@/contract";
import type { HandbookAbout } from "@/contract/handbook";
import { languagesOf } from "@/core/model";
import { BookletKinds } from "../../controls/BookletKinds";
import { FormRow } from "../../controls/FormRow";
import { Choice, TextField } from "../../controls/fields";
import { fileOf } from "../../kernel/ask";
import { useAsked } from "../../kernel/queries";
import { useRested } from "../../kernel/useRested";
import { wordsOf } from "../../kernel/wordsOf";
import { text } from "../../messages";
import { LensChoice } from "../../version/lenses/LensChoice";
import { useVersion, useVersionStore } from "../../version/VersionContext";
import { HandbookParts } from "./HandbookParts";
import { type HandbookScope, useHandbookChoice } from "./handbookChoice";
import { Templates } from "./Templates";

const words = text.handbook;
const path = "/api/handbook";

/** The generated documentation: what it is about, which parts in which order, in which language; previewed, and taken as a file. */
export function Handbook() {
  const store = useVersionStore();
  const info = useVersion((state) => state.info);
  const model = useVersion((state) => state.model);
  const { scope, language, title, parts, lenses, isNumbered, font, logo, choose } = useHandbookChoice();
  const about = useAbout(scope);
  const languages = useMemo(
    () => [...new Set([...languagesOf(model), ...(language ? [language] : [])])],
    [model, language],
  );
  const chosen = useMemo(() => parts.flatMap(({ part, isIn }) => (isIn ? [part] : [])), [parts]);
  const input = useMemo(
    () =>
      about && chosen.length > 0
        ? { about, parts: chosen, language: language === "" ? null : language, title, lenses, isNumbered, font, logo }
        : undefined,
    [about, chosen, language, title, lenses, isNumbered, font, logo],
  );
  const name = [title || info.process.name, scope === "version" ? info.version.name : "", language]
    .filter(Boolean)
    .join(" ");
  return (
    <Flex gap={6} maxW="1180px" align="flex-start" wrap="wrap" data-testid="handbook">
      <Flex direction="column" w="330px" flexShrink={0} gap={1}>
        <chakra.p color="quiet" mb={2}>
          {words.explain}
        </chakra.p>
        <FormRow label={words.about} width="84px">
          <Choice
            label={words.about}
            value={scope}
            options={Object.entries(words.abouts) as [HandbookScope, string][]}
            onChoose={(value) => choose({ scope: value })}
          />
        </FormRow>
        <FormRow label={words.title} width="84px">
          <TextField
            label={words.title}
            value={title}
            placeholder={scope === "version" ? info.process.name : ""}
            onCommit={(value) => choose({ title: value })}
          />
        </FormRow>
        <FormRow label={words.language} width="84px">
          <Choice
            label={words.language}
            value={language}
            options={[
              ["", words.ownLanguage],
              ...languages.map((one) => [one, one] as const),
              ...(languages.includes("de") ? [] : [["de", words.german] as const]),
            ]}
            onChoose={(value) => choose({ language: value })}
          />
        </FormRow>
        <Templates />
        <chakra.h2 fontWeight="700" mt={2}>
          {words.parts}
        </chakra.h2>
        <HandbookParts parts={parts} onChange={(next) => choose({ parts: next })} />
        {chosen.length === 0 && <chakra.p color="trouble">{words.noParts}</chakra.p>}
        <LensChoice chosen={lenses} onChoose={(next) => choose({ lenses: next })} />
        <chakra.h2 fontWeight="700" mt={3}>
          {words.give}
        </chakra.h2>
        <BookletKinds path={path} input={input} name={name} before={() => store.getState().settled()} />
      </Flex>
      <Preview input={input} title={title || info.process.name} />
    </Flex>
  );
}

/** What the handbook is about; of an area, which that is has to be asked for. */
function useAbout(scope: HandbookScope): HandbookAbout | undefined {
  const { version, process } = useVersion((state) => state.info);
  const { data } = useAsked(home.openHome, { text: process.name.slice(0, 100) }, { isWanted: scope === "area" });
  const area = data?.processes.find(({ id }) => id === process.id)?.area;
  return useMemo(() => {
    if (scope === "version") return { kind: "version", version: version.id };
    if (scope === "all") return { kind: "all" };
    return area === undefined ? undefined : { kind: "area", area };
  }, [scope, version.id, area]);
}

/** The handbook as the page of the web it would be; made anew once its choices, and the model, have come to rest. */
function Preview({ input, title }: { readonly input: object | undefined; readonly title: string }) {
  const store = useVersionStore();
  const model = useRested(
    useVersion((state) => state.model),
    1_000,
  );
  const rested = useRested(input, 400);
  const [page, setPage] = useState<string>();
  const [problem, setProblem] = useState("");
  const [isLooking, setLooking] = useState(true);
  useEffect(() => {
    if (!rested) return;
    const stopped = new AbortController();
    setLooking(true);
    const look = async () => {
      try {
        await store.getState().settled();
        const file = await fileOf(path, { ...rested, kind: "html" }, stopped.signal);
        // Its script is for whoever opens the file: here it is only looked at.
        const html = (await file.text()).replace(/<script>[\s\S]*?<\/script>/g, "");
        if (stopped.signal.aborted) return;
        setPage(html);
        setProblem("");
      } catch (error) {
        if (stopped.signal.aborted) return;
        setProblem(wordsOf(error));
      }
      setLooking(false);
    };
    void look();
    return () => stopped.abort();
  }, [rested, model, store]);
  return (
    <Flex direction="column" flex="1 1 480px" minW={0} gap={1}>
      <chakra.p color={problem ? "trouble" : "quiet"} role="status" minH="20px">
        {problem || (isLooking ? words.looking : words.preview)}
      </chakra.p>
      {page !== undefined && (
        <chakra.iframe
          title={words.previewOf(title)}
          sandbox=""
          srcDoc={page}
          w="100%"
          h="calc(100vh - 330px)"
          minH="420px"
          borderWidth="1px"
          borderColor="line"
          bg="#F7F4EC"
          opacity={isLooking ? 0.6 : 1}
        />
      )}
    </Flex>
  );
}
