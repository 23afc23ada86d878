"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { useCallback, useMemo, useState } from "react";
import { check } from "@/contract";
import { type Finding, keyOf, type Repair, type RuleGroup, type Severity, waiverFor } from "@/core/check";
import { performed } from "@/core/commands";
import { type Id, isFlowNode, nameOf } from "@/core/model";
import { AskDialog } from "../../controls/AskDialog";
import { complain, tell } from "../../controls/notices";
import { EmptyState } from "../../controls/states";
import { ask } from "../../kernel/ask";
import { doAct } from "../../kernel/history";
import { text, typeWord, worded } from "../../messages";
import { useDiagram } from "../../version/diagramStore";
import { useFindings } from "../../version/findings";
import { useVersion, useVersionStore } from "../../version/VersionContext";
import { useWalks } from "../../version/walks";
import { CheckedPage } from "./CheckedPage";
import { CheckHead } from "./CheckHead";
import { DecisionsNote } from "./DecisionsNote";
import { FindingRow } from "./FindingRow";
import { Measures } from "./Measures";
import { RepairBar } from "./RepairBar";
import { useRepair } from "./useRepair";
import { WalksNote } from "./WalksNote";

// Shown only when asked for, and loaded then.
const RulesDialog = dynamic(() => import("./RulesDialog").then((file) => file.RulesDialog), { loading: () => null });

const groups: readonly RuleGroup[] = [
  "behaviour",
  "connections",
  "completeness",
  "automation",
  "names",
  "guidelines",
  "layout",
];

const none: readonly Finding[] = [];
const nothing: readonly Id[] = [];

/** The verdict on a version, and everything that led to it. */
export function CheckStage() {
  const { findings, waivers, reload } = useFindings();
  const { tests } = useWalks();
  const model = useVersion((state) => state.model);
  const version = useVersion((state) => state.info.version.id);
  const store = useVersionStore();
  const router = useRouter();
  const [severity, setSeverity] = useState<Severity | "all">("all");
  const [typed, setTyped] = useState("");
  const [chosenKey, setChosenKey] = useState<string | null>(null);
  const [accepting, setAccepting] = useState<Finding | null>(null);
  const [previewing, setPreviewing] = useState<{ readonly finding: Finding; readonly which: number } | null>(null);
  const [rulesOpen, setRulesOpen] = useState(false);
  const tried = useRepair(model, previewing?.finding ?? null, previewing?.which ?? 0);
  const leave = useCallback(() => setPreviewing(null), []);
  const hasSteps = useMemo(() => [...model.elements].some((element) => isFlowNode(element.type)), [model]);

  const names = (finding: Finding) =>
    finding.elements
      .map((id) => nameOf(model, id) || typeWord(model.elements.get(id)?.type ?? ""))
      .filter(Boolean)
      .join(", ");
  const shown = findings.filter(
    (finding) =>
      (severity === "all" || finding.severity === severity) &&
      (typed === "" ||
        `${worded(finding.said)} ${names(finding)} ${finding.rule}`.toLowerCase().includes(typed.toLowerCase())),
  );
  // The first one is looked at until another is chosen.
  const inOrder = groups.flatMap((group) => shown.filter((finding) => finding.group === group));
  const chosen = inOrder.find((finding) => keyOf(finding) === chosenKey) ?? inOrder[0];
  const pick = (element: Id | undefined) => {
    const about = inOrder.find((finding) => element !== undefined && finding.elements.includes(element));
    if (!about) return;
    setChosenKey(keyOf(about));
    requestAnimationFrame(() => document.querySelector("[data-chosen]")?.scrollIntoView({ block: "nearest" }));
  };
  const jump = (finding: Finding) => {
    useDiagram.getState().select(...finding.elements);
    router.push(`/v/${encodeURIComponent(version)}/diagram?element=${encodeURIComponent(finding.elements[0] ?? "")}`);
  };
  const repair = (one: Repair) => {
    setPreviewing(null);
    if (!performed(model, one.commands)) return;
    store.getState().dispatch(...one.commands);
    tell({ description: text.check.repaired });
  };
  if (!hasSteps) return <EmptyState>{text.check.nothing}</EmptyState>;
  const withdraw = (finding: Finding) => {
    const one = { version, finding: keyOf(finding) };
    const reason = waiverFor(finding, waivers)?.reason ?? "";
    doAct(
      text.check.withdrawnNow(worded(finding.said)),
      () => ask(check.withdrawWaiver, one),
      () => ask(check.waive, { ...one, reason }),
    ).then(reload, complain);
  };
  return (
    <Flex direction="column" flex="1" minH={0} css={{ "& button": { fontSize: "13px" } }}>
      <CheckHead severity={severity} onSeverity={setSeverity} onRules={() => setRulesOpen(true)} />
      <Flex direction="column" flex="1 1 0" minH={0} borderBottomWidth="1px" borderColor="line">
        {tried && (
          <RepairBar
            tried={tried}
            onPick={(which) => setPreviewing({ finding: tried.finding, which })}
            onApply={() => repair(tried.repair)}
            onClose={leave}
          />
        )}
        <CheckedPage
          model={tried?.model ?? model}
          findings={tried ? (tried.found ?? none) : shown}
          chosen={tried?.model ? undefined : chosen}
          changed={tried?.changed ?? nothing}
          onPick={pick}
        />
      </Flex>
      <Box overflow="auto" flex="1.1 1 0" minH={0} px={6} py={4}>
        <chakra.input
          aria-label={text.check.filter}
          placeholder={text.check.filter}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          display="block"
          ms="auto"
          mb={-7}
          position="relative"
          h="28px"
          w="200px"
          px={2}
          bg="paper"
          borderWidth="1px"
          borderColor="line"
          borderRadius="6px"
          _placeholder={{ color: "quiet" }}
        />
        {tests.length > 0 && <WalksNote />}
        <DecisionsNote />
        {groups.map((group) => {
          const inGroup = shown.filter((finding) => finding.group === group);
          if (inGroup.length === 0) return null;
          return (
            <Box as="section" key={group} mb={6}>
              <chakra.h2 fontSize="14px" fontWeight="700" mb={3}>
                {text.check.groups[group]}{" "}
                <chakra.span color="quiet" fontWeight="400">
                  {inGroup.length}
                </chakra.span>
              </chakra.h2>
              <Box as="ul" listStyleType="none" borderTopWidth="1px" borderColor="line">
                {inGroup.map((finding) => (
                  <FindingRow
                    key={keyOf(finding)}
                    finding={finding}
                    names={names(finding)}
                    isChosen={finding === chosen}
                    onChoose={() => {
                      setChosenKey(keyOf(finding));
                      if (finding !== previewing?.finding) setPreviewing(null);
                    }}
                    waiver={waiverFor(finding, waivers)}
                    onShow={() => jump(finding)}
                    onRun={() => {
                      useDiagram.getState().set({ run: finding.witness ?? null });
                      jump(finding);
                    }}
                    onPreview={() => {
                      setChosenKey(keyOf(finding));
                      setPreviewing({ finding, which: 0 });
                    }}
                    onRepair={repair}
                    onAccept={() => setAccepting(finding)}
                    onWithdraw={() => withdraw(finding)}
                  />
                ))}
              </Box>
            </Box>
          );
        })}
        {shown.length === 0 && <EmptyState>{text.check.none}</EmptyState>}
        <Measures model={model} />
      </Box>
      {rulesOpen && <RulesDialog groups={groups} onClose={() => setRulesOpen(false)} />}
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
            const one = { version, finding: keyOf(accepting) };
            await doAct(
              text.check.acceptedNow(accepting.message),
              () => ask(check.waive, { ...one, reason }),
              () => ask(check.withdrawWaiver, one),
            );
            await reload();
          }}
        />
      )}
    </Flex>
  );
}
