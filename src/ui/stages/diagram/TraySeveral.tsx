"use client";
import { Box, chakra } from "@chakra-ui/react";
import type { Command } from "@/core/commands";
import { roleParts, rolesOf } from "@/core/directory";
import { type Element, type ElementType, familyOf, isActivity, nameOf, systemsOf, systemUses } from "@/core/model";
import { EntryPicker } from "../../controls/EntryPicker";
import { Choice } from "../../controls/fields";
import { Row, type TrayProps } from "../../controls/trayParts";
import { text, typeWord } from "../../messages";
import { newId } from "../../version/actions";
import { useVersionStore } from "../../version/VersionContext";

/** What several elements can be given at once: a type, a repetition, people and systems; one undo step each. */
export function TraySeveral({ model, diagram, selection }: TrayProps) {
  const { dispatch } = useVersionStore().getState();
  const chosen = selection.flatMap((id) => model.elements.get(id) ?? []);
  const activities = chosen.filter((element) => isActivity(element.type));
  const all = (make: (element: Element) => Command, among: readonly Element[]) => dispatch(...among.map(make));
  const family = chosen[0] ? familyOf(chosen[0].type) : [];
  const isOneFamily = family.length > 1 && chosen.every((element) => family.includes(element.type));
  const types = new Set(chosen.map((element) => element.type));
  if (activities.length === 0 && !isOneFamily)
    return (
      <chakra.p color="quiet" p={5}>
        {text.tray.several}
      </chakra.p>
    );
  const names = (list: readonly string[]) => [...new Set(list)].sort().join(", ") || text.tray.none;
  return (
    <>
      <Box flex="1.2" px={4} py={3} minW="240px" borderRightWidth="1px" borderColor="line">
        <chakra.h2 fontSize="12px" fontWeight="600" color="quiet" mb={2}>
          {text.diagram.several(chosen.length)}
        </chakra.h2>
        {isOneFamily && (
          <Row label={text.tray.type}>
            <Choice
              label={text.tray.type}
              value={types.size === 1 ? ([...types][0] as string) : ""}
              options={[
                ...(types.size === 1 ? [] : [["", text.tray.different] as const]),
                ...family.map((type) => [type as string, typeWord(type)] as const),
              ]}
              onChoose={(type) =>
                type !== "" &&
                all(
                  (element) => ({ type: "replace", diagram, id: element.id, kind: { type: type as ElementType } }),
                  chosen,
                )
              }
            />
          </Row>
        )}
        {activities.length > 0 && (
          <Row label={text.tray.repeats}>
            <Choice
              label={text.tray.repeats}
              value=""
              options={[
                ["", text.tray.leave],
                ["once", text.tray.once],
                ["loop", text.tray.loop],
                ["sequential", text.tray.inTurn],
                ["parallel", text.tray.atOnce],
              ]}
              onChoose={(repetition) =>
                repetition !== "" &&
                all(
                  (element) => ({
                    type: "setRepetition",
                    activity: element.id,
                    id: newId("repeat"),
                    repetition: repetition as "once",
                  }),
                  activities,
                )
              }
            />
          </Row>
        )}
        <chakra.p color="quiet" mt={2} fontSize="13px">
          {chosen
            .map((element) => nameOf(model, element.id))
            .filter(Boolean)
            .join(" · ")}
        </chakra.p>
      </Box>
      {activities.length > 0 && (
        <Box flex="1.5" px={4} py={3} minW="260px">
          <chakra.h2 fontSize="12px" fontWeight="600" color="quiet" mb={2}>
            {text.tray.whoSeveral(activities.length)}
          </chakra.h2>
          {roleParts.map((part) => (
            <Row key={part} label={text.tray[part]}>
              <span>
                {names(
                  activities.flatMap((element) =>
                    rolesOf(model, element.id)
                      .filter((role) => role.part === part)
                      .map((role) => role.name),
                  ),
                )}
              </span>
              <EntryPicker
                kind="role"
                label={`${text.tray[part]}: ${text.tray.add}`}
                onChoose={(role) =>
                  all(
                    (element) => ({ type: "assignRole", step: element.id, role, part, id: newId("role") }),
                    activities,
                  )
                }
              />
            </Row>
          ))}
          <Row label={text.tray.systems}>
            <span>{names(activities.flatMap((element) => systemsOf(element).map((system) => system.name)))}</span>
            <EntryPicker
              kind="system"
              label={`${text.tray.systems}: ${text.tray.add}`}
              onChoose={(system) =>
                all(
                  (element) => ({ type: "useSystem", step: element.id, system, use: systemUses[0] ?? "reads" }),
                  activities,
                )
              }
            />
          </Row>
        </Box>
      )}
    </>
  );
}
