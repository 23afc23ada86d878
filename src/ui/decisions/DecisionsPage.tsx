"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { decisions } from "@/contract";
import type { ListedDecisionFile } from "@/contract/decisions";
import { decodeText } from "@/core/table";
import { momentWords } from "../controls/moment";
import { complain, tell } from "../controls/notices";
import { PageLink } from "../controls/PageLink";
import { EmptyState, ErrorPage, LoadingPage } from "../controls/states";
import { NewLine } from "../controls/trayParts";
import { ask } from "../kernel/ask";
import { doAct, undoLast } from "../kernel/history";
import { lookAgain, useAsked } from "../kernel/queries";
import { text } from "../messages";
import { TopRow } from "../shell/TopRow";

const words = text.decisions;
export const decisionPath = (file: string): string => `/decisions/${encodeURIComponent(file)}`;
const renew = () => lookAgain([{ kind: "directory" }]);

/** The files of decisions of the workspace: what each decides, and what decides by it. */
export function DecisionsPage() {
  const { data, error, refetch } = useAsked(decisions.listDecisionFiles, {});
  const router = useRouter();
  const [typed, setTyped] = useState("");
  const picker = useRef<HTMLInputElement>(null);
  const make = async (name: string, content?: string) => {
    const made = await doAct(
      content === undefined ? words.making(name) : words.importing(name),
      () => ask(decisions.createDecisionFile, { name, ...(content !== undefined && { content }) }),
      ({ id }) => ask(decisions.deleteDecisionFile, { id }),
    );
    await renew();
    return made.id;
  };
  const begin = async () => {
    if (typed.trim() === "") return;
    try {
      router.push(decisionPath(await make(typed.trim())));
    } catch (reason) {
      complain(reason);
    }
  };
  const takeOver = async (picked: File | undefined) => {
    if (!picked) return;
    try {
      const content = decodeText(new Uint8Array(await picked.arrayBuffer()));
      await make(picked.name.replace(/\.(dmn|xml)$/i, ""), content);
      tell({ description: words.imported(picked.name) });
    } catch (reason) {
      complain(reason);
    }
  };
  const remove = async ({ id, name }: ListedDecisionFile) => {
    try {
      await doAct(
        words.deleting(name),
        () => ask(decisions.deleteDecisionFile, { id }),
        () => ask(decisions.restoreDecisionFile, { id }),
      );
      await renew();
      tell({
        description: words.deleted(name),
        action: { label: text.home.undo, onClick: () => void undoLast().then(renew).catch(complain) },
      });
    } catch (reason) {
      complain(reason);
    }
  };
  if (error) return <ErrorPage message={error.message} retry={() => void refetch()} />;
  if (!data) return <LoadingPage label={words.loading} />;
  return (
    <Flex direction="column" h="100%">
      <TopRow
        trail={
          <Flex gap={1.5} align="baseline">
            <PageLink href="/directory" color="quiet">
              {text.directory.title}
            </PageLink>
            <chakra.span color="quiet">/</chakra.span>
            <chakra.h1 color="ink" fontWeight="700">
              {words.title}
            </chakra.h1>
          </Flex>
        }
      />
      <chakra.main id="content" flex="1" overflow="auto" px={6} py={4}>
        <Flex gap={3} align="center" mb={4} wrap="wrap">
          <chakra.p color="quiet" flex="1 1 420px" maxW="78ch">
            {words.explain}
          </chakra.p>
          <chakra.div w="240px">
            <NewLine label={words.addNamed} value={typed} onType={setTyped} onEnter={() => void begin()} />
          </chakra.div>
          <Button h="28px" bg="accent" color="onAccent" disabled={typed.trim() === ""} onClick={() => void begin()}>
            {words.add}
          </Button>
          <Button h="28px" variant="outline" onClick={() => picker.current?.click()}>
            {words.import}
          </Button>
          <input
            ref={picker}
            type="file"
            accept=".dmn,.xml"
            hidden
            data-testid="decision-file"
            onChange={(event) => {
              void takeOver(event.target.files?.[0]);
              event.target.value = "";
            }}
          />
        </Flex>
        {data.files.length === 0 ? (
          <EmptyState>{words.empty}</EmptyState>
        ) : (
          <chakra.table
            w="100%"
            borderCollapse="collapse"
            css={{ "& th, & td": { textAlign: "left", padding: "6px 10px" } }}
          >
            <thead>
              <chakra.tr color="quiet" fontSize="12px">
                <th>{words.file}</th>
                <th>{words.decides}</th>
                <th>{words.used}</th>
                <th>{words.changed}</th>
                <th>
                  <chakra.span srOnly>{words.delete}</chakra.span>
                </th>
              </chakra.tr>
            </thead>
            <tbody>
              {data.files.map((file) => (
                <chakra.tr key={file.id} borderTopWidth="1px" borderColor="line" bg="paper" verticalAlign="top">
                  <td>
                    <PageLink href={decisionPath(file.id)} color="accent" fontWeight="600">
                      {file.name}
                    </PageLink>
                  </td>
                  <td>{file.decisions.map(({ name }) => name).join(", ")}</td>
                  <td>{words.steps(file.uses)}</td>
                  <chakra.td color="quiet">{words.by(file.member, momentWords(file.changedAt))}</chakra.td>
                  <chakra.td w="1%">
                    <Button
                      size="xs"
                      variant="outline"
                      aria-label={`${words.delete}: ${file.name}`}
                      onClick={() => void remove(file)}
                    >
                      {words.delete}
                    </Button>
                  </chakra.td>
                </chakra.tr>
              ))}
            </tbody>
          </chakra.table>
        )}
      </chakra.main>
    </Flex>
  );
}
