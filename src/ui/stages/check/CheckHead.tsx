"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { PenLine } from "lucide-react";
import { check } from "@/contract";
import { type ProfileName, profileNames, type Severity } from "@/core/check";
import { complain, tell } from "../../controls/notices";
import { ask } from "../../kernel/ask";
import { doAct } from "../../kernel/history";
import { text } from "../../messages";
import { useFindings } from "../../version/findings";
import { useLatestRevision } from "../../version/useLatestRevision";
import { useVersion, useVersionStore } from "../../version/VersionContext";
import { SeveritySign } from "./SeveritySign";

const severities: readonly Severity[] = ["error", "warning", "advice"];

/** The verdict, what it is asked for, who signed it, and how many findings of each kind there are. */
export function CheckHead(props: {
  readonly severity: Severity | "all";
  readonly onSeverity: (severity: Severity | "all") => void;
  readonly onRules: () => void;
}) {
  const { verdict, profile, verdicts, isLooking, reload } = useFindings();
  const version = useVersion((state) => state.info.version.id);
  const store = useVersionStore();
  const revision = useLatestRevision();
  const [last] = verdicts;
  const open = verdict?.openErrors.length ?? 0;
  const choose = (wanted: ProfileName) =>
    void doAct(
      text.check.checkedForNow(text.check.profiles[wanted]),
      () => ask(check.chooseProfile, { version, profile: wanted }),
      () => ask(check.chooseProfile, { version, profile }),
    ).then(reload, complain);
  const sign = async () => {
    await store.getState().settled();
    // Whether it was answered or not: what is there now is what counts.
    const asked = ask(check.signVerdict, { version });
    await asked.catch(() => undefined);
    await reload();
    const { revision: number } = await asked;
    tell({ description: text.check.signedNow(number) });
  };
  return (
    <Flex px={6} py={3} gap={6} align="center" borderBottomWidth="1px" borderColor="line" bg="sheet" flexShrink={0}>
      <Box flex="1" minW="300px">
        <Flex gap={3} align="baseline" wrap="wrap">
          <chakra.h1 fontSize="17px" fontWeight="700">
            {text.check.title(revision)}
          </chakra.h1>
          <chakra.label color="quiet" fontSize="13px" display="flex" gap={1.5} alignItems="center">
            {text.check.checkedFor}
            <chakra.select
              value={profile}
              h="26px"
              px={1}
              bg="paper"
              color="ink"
              borderWidth="1px"
              borderColor="line"
              borderRadius="6px"
              onChange={(event) => choose(event.target.value as ProfileName)}
            >
              {profileNames.map((name) => (
                <option key={name} value={name}>
                  {text.check.profiles[name]}
                </option>
              ))}
            </chakra.select>
          </chakra.label>
          <chakra.button type="button" color="accent" fontSize="13px" cursor="pointer" onClick={props.onRules}>
            {text.check.rulesOpen}
          </chakra.button>
        </Flex>
        <chakra.p color={open > 0 ? "trouble" : "good"} mt={1} data-testid="verdict">
          {verdict &&
            (open > 0
              ? text.check.errors(open)
              : text.check.clean(text.check.profiles[profile], profile === "hand-off"))}
          {isLooking && <chakra.span color="quiet"> {text.check.looking}</chakra.span>}
        </chakra.p>
        <Flex gap={2} mt={1} align="center" fontSize="13px" color="quiet">
          <Button
            size="xs"
            variant="outline"
            bg="paper"
            borderColor={open > 0 ? "line" : "accent"}
            color={open > 0 ? "quiet" : "accent"}
            disabled={!verdict || open > 0 || last?.holds === true}
            onClick={() => sign().catch(complain)}
          >
            <PenLine size={13} /> {text.check.sign}
          </Button>
          <span data-testid="signed">
            {last
              ? text.check.signed(
                  last.member,
                  last.at.slice(0, 10),
                  last.revision,
                  text.check.profiles[last.profile],
                  last.holds,
                )
              : text.check.unsigned}
          </span>
        </Flex>
      </Box>
      <Flex gap={2} role="group" aria-label={text.check.filter}>
        {severities.map((one) => (
          <Button
            key={one}
            variant="outline"
            h="52px"
            px={4}
            bg="paper"
            borderColor={props.severity === one ? "accent" : "line"}
            borderBottomWidth={props.severity === one ? "3px" : "1px"}
            aria-pressed={props.severity === one}
            onClick={() => props.onSeverity(props.severity === one ? "all" : one)}
          >
            <SeveritySign severity={one} size={18} />
            <Box textAlign="start" ms={1}>
              <Box fontSize="17px" fontWeight="700" lineHeight="1.1">
                {verdict?.counts[one] ?? "…"}
              </Box>
              <Box fontSize="12px" color="quiet" fontWeight="400">
                {(verdict?.counts[one] === 1 ? text.check.one : text.check.severity)[one]}
              </Box>
            </Box>
          </Button>
        ))}
        <Flex direction="column" justify="center" px={2} color="quiet" fontSize="12px">
          {verdict?.waived.length ?? 0} {text.check.accepted.toLowerCase()}
        </Flex>
      </Flex>
    </Flex>
  );
}
