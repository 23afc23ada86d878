"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useRouter, useSearchParams } from "next/navigation";
import { useEffect } from "react";
import { documentText, itemOf, modelOf, tableOf, topDecisions } from "@/core/decisions";
import { complain } from "../controls/notices";
import { PageLink } from "../controls/PageLink";
import { ErrorPage, LoadingPage } from "../controls/states";
import { giveFile } from "../kernel/ask";
import { text } from "../messages";
import { TopRow } from "../shell/TopRow";
import { decisionPath } from "./DecisionsPage";
import { DecisionTray } from "./DecisionTray";
import { useDecisions } from "./decisionStore";
import { ExpressionView } from "./ExpressionView";
import { ItemBar } from "./ItemBar";
import { Requirements } from "./Requirements";
import { TableView } from "./TableView";
import { useFindings } from "./useFindings";

const words = text.decisions;

/** One file of decisions: what requires what, and of the chosen one the rules, what is proven of them, and its test cases. */
export function DecisionFilePage({ file }: { readonly file: string }) {
  const { file: isOpen, document, name, status, problem, open, resolve } = useDecisions();
  const wanted = useSearchParams().get("decision");
  const router = useRouter();
  useEffect(() => {
    void open(file);
  }, [file, open]);
  const model = document ? modelOf(document) : undefined;
  const isThere = document !== null && wanted !== null && itemOf(document.root, wanted) !== undefined;
  const chosen =
    (isThere && wanted !== null ? wanted : undefined) ??
    (model && (topDecisions(model)[0]?.id ?? [...model.decisions.keys()][0]));
  const decision = model?.decisions.get(chosen ?? "");
  const findings = useFindings(document, decision?.id);
  const choose = (id: string) => router.replace(`${decisionPath(file)}?decision=${encodeURIComponent(id)}`);
  if (status === "gone") return <ErrorPage message={words.gone} retry={() => router.push("/decisions")} />;
  if (isOpen === file && !document && status === "failed")
    return <ErrorPage message={problem} retry={() => void open(file)} />;
  if (isOpen !== file || !document || !model) return <LoadingPage label={words.loading} />;
  const table = chosen === undefined ? undefined : tableOf(document.root, chosen);
  return (
    <Flex direction="column" h="100%">
      <TopRow
        trail={
          <Flex gap={1.5} align="baseline" minW={0}>
            <PageLink href="/decisions" color="quiet">
              {words.title}
            </PageLink>
            <chakra.span color="quiet">/</chakra.span>
            <chakra.h1 color="ink" fontWeight="700" truncate>
              {model.name || name}
            </chakra.h1>
            <chakra.span role="status" ms={3} color={status === "saved" ? "quiet" : "attention"} fontSize="12px">
              {status === "changed-elsewhere" ? words.changedElsewhere : words.saved[status]}
            </chakra.span>
          </Flex>
        }
      />
      <Flex as="main" id="content" direction="column" flex="1" minH={0}>
        {problem !== "" && status !== "saved" && (
          <Flex px={6} py={1.5} gap={3} align="center" bg="paper" borderBottomWidth="1px" borderColor="line">
            <chakra.span role="alert" fontSize="13px" flex="1">
              {problem}
            </chakra.span>
            {status === "changed-elsewhere" && (
              <>
                <Button size="xs" variant="outline" onClick={() => void resolve("take").catch(complain)}>
                  {words.take}
                </Button>
                <Button size="xs" variant="outline" onClick={() => void resolve("keep").catch(complain)}>
                  {words.keep}
                </Button>
              </>
            )}
          </Flex>
        )}
        <Requirements
          model={model}
          chosen={chosen}
          onChoose={choose}
          onExport={() =>
            giveFile(
              new Blob([documentText(document)], { type: "application/xml" }),
              `${(model.name || name).replace(/[^\p{L}\p{N}_-]+/gu, "-")}.dmn`,
            )
          }
        />
        {chosen === undefined ? (
          <chakra.p p={6} color="quiet">
            {words.noItem}
          </chakra.p>
        ) : (
          <>
            <ItemBar key={`bar ${chosen}`} id={chosen} onGone={() => router.replace(decisionPath(file))} />
            <Flex direction="column" flex="1" minH={0} overflow="auto" px={6} pb={3}>
              {table ? (
                <TableView key={chosen} id={chosen} table={table} findings={findings} />
              ) : (
                <ExpressionView key={chosen} id={chosen} />
              )}
            </Flex>
            {decision && <DecisionTray key={`tray ${chosen}`} decision={decision} findings={findings} />}
          </>
        )}
      </Flex>
    </Flex>
  );
}
