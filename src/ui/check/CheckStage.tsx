"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { useRouter } from "next/navigation";
import { useMemo, useState } from "react";
import { type Finding, keyOf, type RuleGroup, rules, type Severity } from "@/core/check";
import { isFlowNode, nameOf, wordFor } from "@/core/model";
import { ask } from "../api";
import { AskDialog } from "../controls/AskDialog";
import { EmptyState } from "../controls/states";
import { complain } from "../controls/toaster";
import { useDiagram } from "../diagram/diagramStore";
import { text } from "../messages";
import { useFindings } from "../version/findings";
import { useLatestRevision } from "../version/useLatestRevision";
import { useVersion, useVersionStore } from "../version/VersionContext";
import { SeveritySign } from "./SeveritySign";

const severities: readonly Severity[] = ["error", "warning", "advice"];
const groups: readonly RuleGroup[] = ["behaviour", "connections", "completeness", "names", "layout"];

/** The verdict on a version, and everything that led to it. */
export function CheckStage() {
  const { findings, waivers, verdict, reloadWaivers } = useFindings();
  const model = useVersion((state) => state.model);
  const version = useVersion((state) => state.info.version.id);
  const store = useVersionStore();
  const router = useRouter();
  const [severity, setSeverity] = useState<Severity | "all">("all");
  const [typed, setTyped] = useState("");
  const [accepting, setAccepting] = useState<Finding | null>(null);
  const revision = useLatestRevision();
  const waived = useMemo(() => new Map(waivers.map((waiver) => [waiver.finding, waiver])), [waivers]);
  const hasSteps = useMemo(() => [...model.elements].some((element) => isFlowNode(element.type)), [model]);

  const names = (finding: Finding) =>
    finding.elements
      .map((id) => nameOf(model, id) || wordFor(model.elements.get(id)?.type ?? ""))
      .filter(Boolean)
      .join(", ");
  const shown = findings.filter(
    (finding) =>
      (severity === "all" || finding.severity === severity) &&
      (typed === "" ||
        `${finding.message} ${names(finding)} ${finding.rule}`.toLowerCase().includes(typed.toLowerCase())),
  );
  const showRun = (finding: Finding) => {
    useDiagram.getState().set({ run: finding.witness ?? null });
    jump(finding);
  };
  const jump = (finding: Finding) => {
    useDiagram.getState().select(...finding.elements);
    router.push(`/v/${encodeURIComponent(version)}/diagram?element=${encodeURIComponent(finding.elements[0] ?? "")}`);
  };
  if (!hasSteps) return <EmptyState>{text.check.nothing}</EmptyState>;
  return (
    <Flex direction="column" flex="1" minH={0}>
      <Flex
        px={6}
        py={4}
        gap={8}
        align="center"
        borderBottomWidth="1px"
        borderColor="line"
        bg="sheet"
        flexShrink={0}
        wrap="wrap"
      >
        <Box flex="1" minW="300px">
          <chakra.h1 fontSize="17px" fontWeight="700">
            {text.check.title(revision)}
          </chakra.h1>
          <chakra.p color={verdict.openErrors.length > 0 ? "trouble" : "good"} mt={1} data-testid="verdict">
            {verdict.openErrors.length > 0 ? text.check.errors(verdict.openErrors.length) : text.check.clean}
          </chakra.p>
        </Box>
        <Flex gap={2} role="group" aria-label={text.check.filter}>
          {severities.map((one) => (
            <Button
              key={one}
              variant="outline"
              h="52px"
              px={4}
              bg="paper"
              borderColor={severity === one ? "accent" : "line"}
              borderBottomWidth={severity === one ? "3px" : "1px"}
              aria-pressed={severity === one}
              onClick={() => setSeverity(severity === one ? "all" : one)}
            >
              <SeveritySign severity={one} size={18} />
              <Box textAlign="start" ms={1}>
                <Box fontSize="17px" fontWeight="700" lineHeight="1.1">
                  {verdict.counts[one]}
                </Box>
                <Box fontSize="12px" color="quiet" fontWeight="400">
                  {text.check.severity[one]}
                </Box>
              </Box>
            </Button>
          ))}
          <Flex direction="column" justify="center" px={3} color="quiet" fontSize="12px">
            <span>{text.check.rules(rules.length)}</span>
            <span>
              {verdict.waived.length} {text.check.accepted.toLowerCase()}
            </span>
          </Flex>
        </Flex>
        <chakra.input
          aria-label={text.check.filter}
          placeholder={text.check.filter}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          h="30px"
          w="180px"
          px={2}
          bg="paper"
          borderWidth="1px"
          borderColor="line"
          borderRadius="6px"
          _placeholder={{ color: "quiet" }}
        />
      </Flex>
      <Box overflow="auto" flex="1" px={6} py={4}>
        {groups.map((group) => {
          const inGroup = shown.filter((finding) => finding.group === group);
          if (inGroup.length === 0) return null;
          return (
            <Box as="section" key={group} mb={6}>
              <chakra.h2 fontSize="14px" fontWeight="700" mb={2}>
                {text.check.groups[group]}{" "}
                <chakra.span color="quiet" fontWeight="400">
                  {inGroup.length}
                </chakra.span>
              </chakra.h2>
              <Box as="ul" listStyleType="none" borderTopWidth="1px" borderColor="line">
                {inGroup.map((finding) => {
                  const waiver = waived.get(keyOf(finding));
                  return (
                    <Flex
                      as="li"
                      key={keyOf(finding)}
                      gap={3}
                      py={2.5}
                      borderBottomWidth="1px"
                      borderColor="line"
                      align="flex-start"
                      opacity={waiver ? 0.85 : 1}
                      data-rule={finding.rule}
                    >
                      <Flex
                        w="92px"
                        gap={2}
                        align="center"
                        flexShrink={0}
                        color={
                          finding.severity === "error"
                            ? "trouble"
                            : finding.severity === "warning"
                              ? "attention"
                              : "quiet"
                        }
                      >
                        <SeveritySign severity={finding.severity} />
                        {text.check.one[finding.severity]}
                      </Flex>
                      <Box w="190px" flexShrink={0}>
                        <chakra.button
                          type="button"
                          onClick={() => jump(finding)}
                          color="accent"
                          textAlign="start"
                          cursor="pointer"
                          minH="24px"
                          _hover={{ textDecoration: "underline" }}
                          aria-label={`${text.check.show}: ${names(finding)}`}
                        >
                          {names(finding) || text.check.show}
                        </chakra.button>
                      </Box>
                      <Box flex="1" maxW="78ch">
                        {finding.message}
                        {waiver && (
                          <chakra.p color="quiet" mt={1}>
                            {text.check.accepted}: {waiver.reason} ({waiver.member}, {waiver.at.slice(0, 10)})
                          </chakra.p>
                        )}
                      </Box>
                      <Flex gap={2} flexShrink={0} w="230px" justify="flex-end" wrap="wrap">
                        {finding.witness && (
                          <Button
                            size="xs"
                            variant="outline"
                            bg="paper"
                            borderColor="line"
                            onClick={() => showRun(finding)}
                          >
                            {text.check.showRun}
                          </Button>
                        )}
                        {finding.repair && (
                          <Button
                            size="xs"
                            variant="outline"
                            borderColor="accent"
                            color="accent"
                            bg="paper"
                            h="auto"
                            minH="26px"
                            py={1}
                            whiteSpace="normal"
                            textAlign="start"
                            onClick={() => store.getState().dispatch(...(finding.repair?.commands ?? []))}
                          >
                            {finding.repair.label}
                          </Button>
                        )}
                        {waiver ? (
                          <Button
                            size="xs"
                            variant="ghost"
                            onClick={() =>
                              ask("withdrawWaiver", { version, finding: keyOf(finding) })
                                .then(reloadWaivers)
                                .catch(complain)
                            }
                          >
                            {text.check.withdraw}
                          </Button>
                        ) : (
                          <Button size="xs" variant="ghost" color="quiet" onClick={() => setAccepting(finding)}>
                            {text.check.accept}
                          </Button>
                        )}
                      </Flex>
                    </Flex>
                  );
                })}
              </Box>
            </Box>
          );
        })}
        {shown.length === 0 && <EmptyState>{text.check.none}</EmptyState>}
      </Box>
      {accepting && (
        <AskDialog
          title={text.check.accept}
          explain={`${accepting.message} ${text.check.acceptAsk}`}
          label={text.check.reason}
          long
          action={text.check.accept}
          onClose={() => setAccepting(null)}
          onAnswer={async (reason) => {
            await store.getState().settled();
            await ask("waive", { version, finding: keyOf(accepting), reason });
            await reloadWaivers();
          }}
        />
      )}
    </Flex>
  );
}
