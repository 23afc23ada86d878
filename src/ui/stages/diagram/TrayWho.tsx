"use client";
import { chakra } from "@chakra-ui/react";
import { type RolePart, roleOfLane, roleParts, rolesOf } from "@/core/directory";
import { type Element, isActivity, systemsOf, systemUses } from "@/core/model";
import { Chip } from "../../controls/Chip";
import { EntryPicker } from "../../controls/EntryPicker";
import { useEntries } from "../../controls/entries";
import { Choice } from "../../controls/fields";
import { Row, type TrayProps } from "../../controls/trayParts";
import { text } from "../../messages";
import { newId } from "../../version/actions";
import { useVersionStore } from "../../version/VersionContext";

export function TrayWho({ element, model }: TrayProps & { readonly element: Element }) {
  const { dispatch } = useVersionStore().getState();
  const { entries } = useEntries();
  const hueOf = (entry: string | undefined) => entries.find((candidate) => candidate.id === entry)?.hue ?? undefined;
  if (element.type === "lane") {
    const role = roleOfLane(model, element);
    return (
      <Row label={text.tray.role}>
        {role?.entry && (
          <Chip
            hue={hueOf(role.entry)}
            onRemove={() => dispatch({ type: "tieLane", lane: element.id, role: null })}
            removeLabel={text.tray.remove(role.name)}
          >
            {role.name}
          </Chip>
        )}
        <EntryPicker
          kind="role"
          label={text.tray.tie}
          words={text.tray.tie}
          onChoose={(entry) => dispatch({ type: "tieLane", lane: element.id, role: entry })}
        />
      </Row>
    );
  }
  const roles = rolesOf(model, element.id);
  const labels: { readonly [part in RolePart]: string } = {
    responsible: text.tray.responsible,
    accountable: text.tray.accountable,
    consulted: text.tray.consulted,
    informed: text.tray.informed,
  };
  return (
    <>
      {isActivity(element.type) &&
        roleParts.map((part) => (
          <Row key={part} label={labels[part]}>
            {roles
              .filter((role) => role.part === part)
              .map((role) => (
                <chakra.span key={role.element} display="inline-flex" alignItems="center" gap={1} maxW="100%">
                  <Chip
                    hue={hueOf(role.entry)}
                    {...(role.from === "step" && {
                      onRemove: () => dispatch({ type: "unassignRole", assignment: role.element }),
                      removeLabel: text.tray.remove(role.name),
                    })}
                  >
                    {role.name}
                  </Chip>
                  {role.from === "lane" && (
                    <chakra.span color="quiet" fontSize="12px" whiteSpace="nowrap">
                      {text.tray.fromLane}
                    </chakra.span>
                  )}
                </chakra.span>
              ))}
            <EntryPicker
              kind="role"
              label={`${labels[part]}: ${text.tray.add}`}
              onChoose={(role) => dispatch({ type: "assignRole", step: element.id, role, part, id: newId("role") })}
            />
          </Row>
        ))}
      <Row label={text.tray.systems}>
        {systemsOf(element).map((system) => (
          <chakra.span key={system.entry} display="inline-flex" gap={1} maxW="100%">
            <Chip
              onRemove={() => dispatch({ type: "dropSystem", step: element.id, entry: system.entry })}
              removeLabel={text.tray.remove(system.name)}
            >
              {system.name}
            </Chip>
            <Choice
              label={`${system.name}: ${text.tray.systems}`}
              value={system.use}
              options={systemUses.map((use) => [use, use])}
              onChoose={(use) =>
                dispatch({
                  type: "useSystem",
                  step: element.id,
                  system: { entry: system.entry, name: system.name },
                  use,
                })
              }
            />
          </chakra.span>
        ))}
        <EntryPicker
          kind="system"
          label={`${text.tray.systems}: ${text.tray.add}`}
          onChoose={(system) => dispatch({ type: "useSystem", step: element.id, system, use: "reads" })}
        />
      </Row>
    </>
  );
}
