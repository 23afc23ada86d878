"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { useRouter } from "next/navigation";
import { useMemo, useState } from "react";
import { type Id, type Model, nameOf, processesOf } from "@/core/model";
import { drawSequence, sequenceOfProcess, sequenceOfWalk } from "@/core/sequence";
import { choicesOf, runWalkTest, walk } from "@/core/tokens";
import { FigureView } from "../../canvas/FigureView";
import { Choice } from "../../controls/fields";
import { complain } from "../../controls/notices";
import { EmptyState } from "../../controls/states";
import { saveFile } from "../../kernel/ask";
import { text, worded } from "../../messages";
import { useVersion, useVersionStore } from "../../version/VersionContext";
import { useWalks } from "../../version/walks";

const words = text.handoff.sequence;
const formats = ["svg", "png", "pdf"] as const;

/** Who calls whom in which order: on all paths of a process, or in a walk that is kept; each line leads to what it tells of. */
export function WhoCallsWhom() {
  const { settled, tests } = useWalks();
  const info = useVersion((state) => state.info);
  const store = useVersionStore();
  const [process, setProcess] = useState<Id | undefined>();
  const [kept, setKept] = useState("");
  const [busy, setBusy] = useState(false);
  const processes = processesOf(settled);
  const chosen = processes.find(({ id }) => id === process) ?? processes[0];
  const test = tests.find(({ id }) => id === kept);
  const told = useMemo(() => {
    if (!test) return chosen && sequenceOfProcess(settled, chosen.id);
    if (runWalkTest({ model: settled }, test.content).verdict === "gone") return undefined;
    return sequenceOfWalk(settled, walk(settled, test.content.process, choicesOf(test.content)).log);
  }, [settled, chosen, test]);
  const drawn = useMemo(() => (told && told.lines.length > 0 ? drawSequence(told) : undefined), [told]);
  const title = test ? test.name : (chosen && nameOf(settled, chosen.id)) || info.process.name;
  const save = async (format: (typeof formats)[number]) => {
    setBusy(true);
    try {
      // What is not kept yet is not in the picture.
      await store.getState().settled();
      const name = `${info.process.name} ${info.version.name} ${words.file}`;
      const sequence = { ...(chosen && { process: chosen.id }), ...(test && { walk: test.id }) };
      await saveFile(
        "/api/export",
        { version: info.version.id, format, name, sequence, scale: 2 },
        `${name}.${format}`,
      );
    } catch (error) {
      complain(error);
    }
    setBusy(false);
  };
  return (
    <Box data-testid="sequence">
      <chakra.p color="quiet" maxW="92ch" mb={3}>
        {words.explain}
      </chakra.p>
      <Flex gap={3} mb={3} align="center" wrap="wrap">
        {processes.length > 1 && !test && (
          <Choice
            label={words.process}
            value={chosen?.id ?? ""}
            options={processes.map(({ id }) => [id, nameOf(settled, id) || id] as const)}
            onChoose={setProcess}
          />
        )}
        <Choice
          label={words.what}
          value={test?.id ?? ""}
          options={[["", words.paths], ...tests.map(({ id, name }) => [id, words.walk(name)] as const)]}
          onChoose={setKept}
        />
        <Box flex="1" />
        {drawn &&
          formats.map((format) => (
            <Button key={format} size="xs" variant="outline" disabled={busy} onClick={() => void save(format)}>
              {format.toUpperCase()}
            </Button>
          ))}
      </Flex>
      {!drawn && <EmptyState>{test && !told ? words.gone : words.none}</EmptyState>}
      {told?.isCut && (
        <chakra.p color="attention" mb={2}>
          {words.cut(told.lines.length)}
        </chakra.p>
      )}
      {drawn && told && (
        <Picture
          model={settled}
          drawn={drawn}
          title={words.picture(title, told.lifelines.length)}
          version={info.version.id}
        />
      )}
    </Box>
  );
}

function Picture(props: {
  readonly model: Model;
  readonly drawn: ReturnType<typeof drawSequence>;
  readonly title: string;
  readonly version: string;
}) {
  const { model, drawn, title, version } = props;
  const router = useRouter();
  const { x, y, width, height } = drawn.scene.bounds;
  return (
    <Box overflow="auto" bg="paper" borderWidth="1px" borderColor="line" borderRadius="6px" p={3}>
      <svg
        viewBox={`${x - 4} ${y - 4} ${width + 8} ${height + 8}`}
        width={width + 8}
        height={height + 8}
        role="group"
        aria-label={title}
      >
        {drawn.scene.figures.map((figure) => {
          const element = drawn.elementOf.get(figure.id);
          if (element === undefined || !model.elements.has(element))
            return <FigureView key={figure.id} figure={figure} />;
          const href = `/v/${encodeURIComponent(version)}/diagram?element=${encodeURIComponent(element)}`;
          return (
            <a
              key={figure.id}
              href={href}
              aria-label={worded(figure.title)}
              onClick={(event) => {
                if (event.ctrlKey || event.metaKey || event.shiftKey) return;
                event.preventDefault();
                router.push(href);
              }}
            >
              <FigureView figure={figure} />
            </a>
          );
        })}
      </svg>
    </Box>
  );
}
