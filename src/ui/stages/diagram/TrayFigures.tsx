"use client";
import { Box, chakra } from "@chakra-ui/react";
import { useState } from "react";
import type { Element, Id, Model } from "@/core/model";
import { scenariosOf } from "@/core/scenario";
import { text } from "../../messages";
import { cellLabels } from "../../version/figures/cells";
import { commandsFor, shown, spreadIn } from "../../version/figures/figureText";
import { firstScenario } from "../../version/figures/firstScenario";
import { SaidCell } from "../../version/figures/SaidCell";
import { rowsOf } from "../../version/figures/sheetRows";
import { useVersionStore } from "../../version/VersionContext";

const words = text.forecast.sheet;

/** What a scenario assumes of an element: how long it takes, how often it comes, who there is; the same figures as in the scenario sheet. */
export function TrayFigures({ element, model }: { readonly element: Element; readonly model: Model }) {
  const store = useVersionStore();
  const [chosen, setChosen] = useState<Id | undefined>();
  const rows = rowsOf(model, element);
  if (rows.length === 0) return null;
  const scenarios = scenariosOf(model);
  const scenario = scenarios.find(({ id }) => id === chosen) ?? scenarios[0] ?? firstScenario;
  return (
    <chakra.section aria-label={words.inTray} mt={2} data-testid="tray-figures">
      <chakra.h3 fontSize="12px" fontWeight="600" color="quiet" mb={1}>
        {words.inTray}{" "}
        {scenarios.length > 1 && (
          <chakra.select
            aria-label={text.forecast.scenario}
            value={scenario.id}
            bg="transparent"
            color="accent"
            fontWeight="400"
            onChange={(event) => setChosen(event.target.value)}
          >
            {scenarios.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </chakra.select>
        )}
      </chakra.h3>
      {rows.flatMap((row) =>
        row.says.map((name) => {
          const label = row.kind === "share" ? row.name : (cellLabels()[row.kind][name] ?? name);
          return (
            <Box key={`${row.element} ${name}`} mb={1}>
              <chakra.span color="quiet" fontSize="12px">
                {label}
              </chakra.span>
              <SaidCell
                label={`${cellLabels()[row.kind][name] ?? name}: ${row.name}`}
                column={name}
                isFramed
                value={shown(row, name, scenario)}
                usual={row.drawn ?? (row.kind === "share" ? words.rest : words.notSaid)}
                spread={spreadIn(row, name, scenario)}
                isOwn={scenario.inherits !== undefined && shown(row, name, scenario, true) !== ""}
                onSay={(typed) => {
                  const commands = commandsFor(row, name, typed, scenario);
                  if (typeof commands === "string") return commands;
                  return store.getState().dispatch(...commands) ? undefined : "";
                }}
              />
            </Box>
          );
        }),
      )}
    </chakra.section>
  );
}
