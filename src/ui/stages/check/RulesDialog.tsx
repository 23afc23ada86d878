"use client";
import { Button, chakra, Dialog, Portal } from "@chakra-ui/react";
import { useState } from "react";
import { check } from "@/contract";
import { type Level, levelOf, type ProfileName, profileNames, type RuleGroup, rules, shippedLevel } from "@/core/check";
import { closedOnPurpose } from "../../controls/dialogs";
import { complain } from "../../controls/notices";
import { ask } from "../../kernel/ask";
import { doAct } from "../../kernel/history";
import { text, worded } from "../../messages";
import { useFindings } from "../../version/findings";

const levels: readonly Level[] = ["error", "warning", "advice", "off"];

/** Every rule, and its level in each profile; what is changed here holds for the whole workspace. */
export function RulesDialog({
  groups,
  onClose,
}: {
  readonly groups: readonly RuleGroup[];
  readonly onClose: () => void;
}) {
  const { adaption, reload } = useFindings();
  const [typed, setTyped] = useState("");
  const change = (profile: ProfileName, rule: string, level: Level, shipped: Level) =>
    void doAct(
      text.check.ruleChanged(rule),
      () => ask(check.adaptRule, { profile, rule, level: level === shipped ? null : level }),
      () => ask(check.adaptRule, { profile, rule, level: adaption[profile]?.[rule] ?? null }),
    ).then(reload, complain);
  const shown = rules.filter((rule) => `${worded(rule.wants)} ${rule.id}`.toLowerCase().includes(typed.toLowerCase()));
  return (
    <Dialog.Root
      {...closedOnPurpose}
      open
      onOpenChange={({ open }) => !open && onClose()}
      placement="center"
      scrollBehavior="inside"
    >
      <Portal>
        <Dialog.Backdrop bg="rgb(30 36 48 / 35%)" />
        <Dialog.Positioner>
          <Dialog.Content bg="paper" color="ink" borderRadius="6px" maxW="980px">
            <Dialog.Header pb={1} display="flex" gap={4} alignItems="center">
              <Dialog.Title fontSize="16px">{text.check.rules(rules.length)}</Dialog.Title>
              <chakra.input
                aria-label={text.check.filterRules}
                placeholder={text.check.filterRules}
                value={typed}
                onChange={(event) => setTyped(event.target.value)}
                h="28px"
                w="220px"
                px={2}
                borderWidth="1px"
                borderColor="line"
                borderRadius="6px"
              />
            </Dialog.Header>
            <Dialog.Body>
              <chakra.p color="quiet" mb={3}>
                {text.check.rulesAsk}
              </chakra.p>
              <chakra.table w="100%" fontSize="13px" css={{ "& td, & th": { padding: "4px 8px", textAlign: "start" } }}>
                <thead>
                  <tr>
                    <th>{text.check.rule}</th>
                    {profileNames.map((name) => (
                      <th key={name}>{text.check.profiles[name]}</th>
                    ))}
                  </tr>
                </thead>
                {groups.map((group) => {
                  const inGroup = shown.filter((rule) => rule.group === group);
                  if (inGroup.length === 0) return null;
                  return (
                    <tbody key={group}>
                      <tr>
                        <chakra.th colSpan={4} color="quiet" fontWeight="600" pt={3}>
                          {text.check.groups[group]}
                        </chakra.th>
                      </tr>
                      {inGroup.map((rule) => (
                        <chakra.tr key={rule.id} borderTopWidth="1px" borderColor="line">
                          <td>{worded(rule.wants)}</td>
                          {profileNames.map((profile) => {
                            const shipped = shippedLevel(rule, profile);
                            const now = levelOf(rule, profile, adaption);
                            return (
                              <td key={profile}>
                                <chakra.select
                                  aria-label={`${worded(rule.wants)} ${text.check.profiles[profile]}`}
                                  title={text.check.asShipped(text.check.levels[shipped])}
                                  value={now}
                                  h="24px"
                                  bg="paper"
                                  borderWidth="1px"
                                  borderColor={now === shipped ? "line" : "accent"}
                                  color={now === "off" ? "quiet" : "ink"}
                                  borderRadius="6px"
                                  onChange={(event) => change(profile, rule.id, event.target.value as Level, shipped)}
                                >
                                  {levels.map((level) => (
                                    <option key={level} value={level}>
                                      {text.check.levels[level]}
                                    </option>
                                  ))}
                                </chakra.select>
                              </td>
                            );
                          })}
                        </chakra.tr>
                      ))}
                    </tbody>
                  );
                })}
              </chakra.table>
            </Dialog.Body>
            <Dialog.Footer>
              <Button size="sm" bg="accent" color="paper" onClick={onClose}>
                {text.dialog.close}
              </Button>
            </Dialog.Footer>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
