"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { Clock, Mail } from "lucide-react";
import type { ToldProcess } from "@/contract/brief";
import { type BriefPart, decisionsIn, type Frame, stepsIn } from "@/core/brief";
import { PageLink } from "../../controls/PageLink";
import { text } from "../../messages";

interface FrameCardProps {
  readonly frame: Frame;
  readonly number: number;
  readonly built: ToldProcess | undefined;
  /** Steps of the text that no model has yet and nobody took out again. */
  readonly fresh: number;
  readonly parts: readonly BriefPart[];
  readonly onRename: (name: string) => void;
  readonly onShow: () => void;
  readonly onBuild: () => void;
  readonly onPutBack: (part: BriefPart | null) => void;
}

/** A process of the text: what sets it off, how much it holds, who takes part, what became of it. */
export function FrameCard(props: FrameCardProps) {
  const { frame, number, built, fresh, parts } = props;
  const [trigger] = frame.triggers;
  const steps = stepsIn(frame.items).length;
  const decisions = decisionsIn(frame.items);
  return (
    <Box as="li" py={2} borderBottomWidth="1px" borderColor="line" data-testid="frame">
      <Flex gap={2} align="center">
        <chakra.button
          type="button"
          onClick={props.onShow}
          w="22px"
          h="20px"
          fontSize="12px"
          fontWeight="700"
          bg="sheet"
          borderWidth="1px"
          borderColor="line"
          borderRadius="5px"
          cursor="pointer"
          aria-label={text.brief.showProcess(frame.name)}
        >
          {number}
        </chakra.button>
        <chakra.input
          key={frame.name}
          aria-label={text.brief.processName}
          defaultValue={frame.name}
          flex="1"
          minW={0}
          fontWeight="700"
          bg="transparent"
          borderBottomWidth="1px"
          borderColor="transparent"
          _hover={{ borderColor: "line" }}
          _focus={{ borderColor: "accent", outline: "none" }}
          onBlur={(event) => event.target.value.trim() !== frame.name && props.onRename(event.target.value.trim())}
          onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
        />
        {built && (
          <PageLink
            href={`/v/${encodeURIComponent(built.version)}/steps`}
            color="accent"
            textDecoration="underline"
            fontSize="13px"
          >
            {text.brief.open}
          </PageLink>
        )}
        {fresh > 0 && (
          <Button size="2xs" variant="outline" borderColor="line" onClick={props.onBuild}>
            {built ? text.brief.addNew(fresh) : text.brief.buildOne}
          </Button>
        )}
      </Flex>
      <Box ps="30px" fontSize="13px" color="quiet">
        {trigger && (
          <Flex gap={1.5} align="center">
            {trigger.time ? <Clock size={12} aria-hidden /> : trigger.from ? <Mail size={12} aria-hidden /> : null}
            <chakra.span truncate>{frame.triggers.map((one) => one.name).join(", ")}</chakra.span>
          </Flex>
        )}
        {frame.kind === "shared" && <div>{text.brief.sharedWork}</div>}
        <div>
          {text.brief.counts(steps, decisions)}
          {frame.roles.length > 0 && ` · ${frame.roles.join(", ")}`}
          {frame.parties.length > 0 &&
            ` · ${text.brief.outside}: ${frame.parties.map((party) => party.name).join(", ")}`}
        </div>
        {(frame.kind === "part" || frame.kind === "shared") && (
          <Button size="2xs" variant="ghost" px={0} onClick={() => props.onPutBack(null)}>
            {text.brief.putBack}
          </Button>
        )}
        {parts.map((part) => (
          <Flex key={part.id} gap={2} align="center">
            <span>
              {text.brief.part} “{part.name}”
            </span>
            <Button size="2xs" variant="ghost" px={0} onClick={() => props.onPutBack(part)}>
              {text.brief.putBack}
            </Button>
          </Flex>
        ))}
      </Box>
    </Box>
  );
}
