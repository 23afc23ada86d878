"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { Plus } from "lucide-react";
import { useState } from "react";
import type { Scenario } from "@/core/scenario";
import { AskDialog } from "../../controls/AskDialog";
import { Keycap } from "../../controls/Keycap";
import { timeWords } from "../../controls/units";
import { locale, text } from "../../messages";
import { useVersionStore } from "../../version/VersionContext";

const words = text.forecast;

/** What the stage shows below its sentence. */
export type View = "pictures" | "figures" | "diagram" | "case";

/** Which scenario, how it is run, and what can be done with it. */
export function ScenarioHead(props: {
  readonly scenarios: readonly Scenario[];
  readonly scenario: Scenario | undefined;
  readonly view: View;
  readonly share: number | undefined;
  readonly canAsk: boolean;
  readonly onScenario: (id: string) => void;
  readonly onView: (view: View) => void;
  readonly onWhatIf: () => void;
  readonly onHowMany: () => void;
  readonly onRun: () => void;
  readonly onStop: () => void;
}) {
  const { scenarios, scenario, view, share, canAsk, onScenario, onView } = props;
  const store = useVersionStore();
  const [asking, setAsking] = useState<"new" | "rename" | null>(null);
  const base = scenario?.inherits === undefined ? undefined : scenarios.find(({ id }) => id === scenario.inherits);
  const run = (): string => {
    if (!scenario) return "";
    const day = new Intl.DateTimeFormat(locale(), { day: "numeric", month: "long", timeZone: "UTC" }).format(
      new Date(scenario.start),
    );
    const lasts = scenario.duration === undefined ? "" : timeWords(scenario.duration);
    return words.extent(day, lasts, scenario.warmUp ? timeWords(scenario.warmUp) : "");
  };
  const add = (name: string) => {
    const id = `scenario-${Date.now().toString(36)}`;
    const done = store
      .getState()
      .dispatch({ type: "addScenario", id, name, ...(scenario && { inherits: scenario.id }) });
    if (done) onScenario(id);
  };
  return (
    <Flex px={5} py={2} gap={3} align="center" borderBottomWidth="1px" borderColor="line" bg="sheet" flexShrink={0}>
      <chakra.h1 srOnly>{text.stages.forecast}</chakra.h1>
      <chakra.select
        aria-label={words.scenario}
        value={scenario?.id ?? ""}
        h="30px"
        px={2}
        fontWeight="700"
        bg="paper"
        color="ink"
        borderWidth="1px"
        borderColor="line"
        borderRadius="6px"
        onChange={(event) => onScenario(event.target.value)}
      >
        {scenarios.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </chakra.select>
      <Button
        size="xs"
        variant="outline"
        bg="paper"
        borderColor="line"
        aria-label={words.newOne}
        title={words.newOne}
        onClick={() => setAsking("new")}
      >
        <Plus size={14} />
      </Button>
      {scenario && (
        <Flex gap={2.5} fontSize="12px">
          <chakra.button type="button" color="accent" cursor="pointer" onClick={() => setAsking("rename")}>
            {words.rename}
          </chakra.button>
          {scenarios.length > 1 && !scenarios.some(({ inherits }) => inherits === scenario.id) && (
            <chakra.button
              type="button"
              color="accent"
              cursor="pointer"
              onClick={() => {
                const next = scenarios.find(({ id }) => id !== scenario.id);
                if (store.getState().dispatch({ type: "dropScenario", id: scenario.id }) && next) onScenario(next.id);
              }}
            >
              {words.drop}
            </chakra.button>
          )}
        </Flex>
      )}
      <chakra.span fontSize="13px" color="quiet" flex="1" minW={0} truncate>
        {base && scenario ? `${words.after(base.name, scenario.own.size)} · ` : ""}
        {run()}
      </chakra.span>
      <Toggle name="F" pressed={view === "figures"} onClick={() => onView(view === "figures" ? "pictures" : "figures")}>
        {words.figures}
      </Toggle>
      <Toggle
        name="D"
        pressed={view === "diagram"}
        disabled={!canAsk}
        onClick={() => onView(view === "diagram" ? "pictures" : "diagram")}
      >
        {words.onDiagram}
      </Toggle>
      <Toggle
        name="O"
        pressed={view === "case"}
        disabled={!canAsk}
        onClick={() => onView(view === "case" ? "pictures" : "case")}
      >
        {words.oneCase.title}
      </Toggle>
      <Toggle name="W" disabled={!canAsk} onClick={props.onWhatIf}>
        {words.whatIf}
      </Toggle>
      <Toggle name="H" disabled={!canAsk} onClick={props.onHowMany}>
        {words.howMany}
      </Toggle>
      {share === undefined ? (
        <Button size="sm" h="30px" bg="accent" color="onAccent" disabled={!scenario} onClick={props.onRun}>
          {words.again} <Keycap>R</Keycap>
        </Button>
      ) : (
        <Button
          size="sm"
          h="30px"
          variant="outline"
          bg="paper"
          borderColor="accent"
          color="accent"
          onClick={props.onStop}
        >
          <Box
            as="span"
            minW="38px"
            textAlign="end"
            role="progressbar"
            aria-valuenow={Math.round(share * 100)}
            aria-label={words.again}
          >
            {words.running(Math.round(share * 100))}
          </Box>{" "}
          {words.stop}
        </Button>
      )}
      {asking && (
        <AskDialog
          title={asking === "new" ? words.newOne : words.rename}
          label={words.nameOf}
          start={asking === "new" ? words.newName(scenario?.name ?? words.scenario) : (scenario?.name ?? "")}
          action={asking === "new" ? words.names.ok : words.names.keep}
          onClose={() => setAsking(null)}
          onAnswer={(name) => {
            if (asking === "new") add(name);
            else if (scenario) store.getState().dispatch({ type: "setScenario", id: scenario.id, words: { name } });
          }}
        />
      )}
    </Flex>
  );
}

function Toggle(props: {
  readonly name: string;
  readonly pressed?: boolean;
  readonly disabled?: boolean;
  readonly onClick: () => void;
  readonly children: string;
}) {
  const { name, pressed, disabled, onClick, children } = props;
  return (
    <Button
      size="sm"
      h="30px"
      variant="outline"
      bg={pressed ? "accentSoft" : "paper"}
      borderColor={pressed ? "accent" : "line"}
      color="ink"
      aria-pressed={pressed}
      aria-keyshortcuts={name}
      disabled={disabled ?? false}
      onClick={onClick}
    >
      {children} <Keycap>{name}</Keycap>
    </Button>
  );
}
