"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { type Forecast, storyOf } from "@/core/forecast";
import { type Id, nameOf } from "@/core/model";
import { decimals, inUnit, moneyWords, percentWords, timeWords, unitFor } from "../../controls/units";
import { text, worded } from "../../messages";
import { useVersion } from "../../version/VersionContext";

const words = text.forecast.tell;

/** What an analyst asks first, in sentences with numbers. */
export function Sentence(props: {
  readonly forecast: Forecast;
  readonly isOld: boolean;
  readonly hueOf: (resource: Id) => string | undefined;
  readonly onShow: (element: Id) => void;
  /** What stands beside it: what was worked out without playing. */
  readonly children?: ReactNode;
}) {
  const { forecast, isOld, hueOf, onShow, children } = props;
  const story = storyOf(forecast);
  const model = useVersion((state) => state.model);
  const { cycleTime, currency, gaps, problems, notEnded } = forecast;
  const unit = unitFor(story.within90);
  const { bottleneck, closed, event, most } = story;
  const overrun = forecast.resources.filter(({ id }) => story.overrun.includes(id));
  return (
    // Paler words could not be read; a line beside them says that they are from before.
    <Box
      px={5}
      py={2.5}
      boxShadow={isOld ? "inset 3px 0 0 var(--chakra-colors-pencil)" : undefined}
      aria-busy={isOld}
      data-testid="forecast-sentence"
      aria-live="polite"
    >
      <chakra.p fontSize="18px" lineHeight="1.4">
        {forecast.cases > 0 ? (
          <>
            <b>
              {words.within}
              {inUnit(story.within90, unit)} {unit.word}
            </b>
            {words.half}
            {inUnit(story.within50, unit)}.{" "}
            <b>
              {percentWords(story.waitingShare)}
              {words.share}
            </b>
            {most === "event" && event ? (
              <>
                {words.others}
                <Shown onShow={() => onShow(event.id)}>{event.name}</Shown>
                {words.each(timeWords(event.waitingMean))}.
              </>
            ) : most === "closed" && closed ? (
              <>
                {words.mostOfIt}
                {closed.element && <Before element={closed.element} onShow={onShow} />}
                {closed.element && ","}
                {words.until}
                <Name of={closed.resource} hue={hueOf(closed.resource.id)} />
                {words.worksAgain}
                {words.each(timeWords(closed.each))}.
              </>
            ) : bottleneck ? (
              <>
                {words.people}
                <People {...bottleneck} hue={hueOf(bottleneck.resource.id)} onShow={onShow} />
                {queueOf(bottleneck.resource)}.
              </>
            ) : (
              "."
            )}
            {most !== "bottleneck" && bottleneck && story.forPeople > 60 && (
              <>
                {words.peopleToo}
                <b>{timeWords(story.forPeople)}</b>
                {words.peopleMost}
                <People {...bottleneck} hue={hueOf(bottleneck.resource.id)} onShow={onShow} />.
              </>
            )}
            {words.cost}
            <b>{moneyWords(forecast.cost.mean, currency)}</b>.
          </>
        ) : (
          words.none
        )}
      </chakra.p>
      {children}
      {forecast.underWay >= 0.5 && (
        <chakra.p fontSize="13px" color="quiet">
          {words.open(Math.round(forecast.underWay))}
        </chakra.p>
      )}
      {overrun.length > 0 && (
        <chakra.p color="trouble">{words.overrun(overrun.map(({ name }) => name).join(", "))}</chakra.p>
      )}
      {notEnded.map(({ how, at, cases }) => (
        <chakra.p key={`${how} ${at}`} color="trouble">
          {(how === "stuck" ? words.stuck : words.round)(cases, at ? nameOf(model, at) || at : "?")}
        </chakra.p>
      ))}
      {forecast.quantileError > 0 && (
        <chakra.p color="quiet" fontSize="13px">
          {words.sketched(decimals(forecast.quantileError * 100))}
        </chakra.p>
      )}
      {problems.map((problem) => (
        <chakra.p key={problem.text} color="attention" fontSize="13px">
          {worded(problem)}
        </chakra.p>
      ))}
      {gaps.length > 0 && (
        <chakra.details fontSize="13px" color="attention" mt={0.5} data-testid="gaps">
          <chakra.summary cursor="pointer">{text.forecast.gaps(gaps.length)}</chakra.summary>
          <chakra.ul ps={5}>
            {gaps.map(({ kind, element, name, taken }) => (
              <chakra.li key={`${kind} ${element}`} listStyleType="disc">
                <Shown onShow={() => onShow(element)}>{name}</Shown>: {worded(taken)}
              </chakra.li>
            ))}
          </chakra.ul>
        </chakra.details>
      )}
      <chakra.span srOnly>{timeWords(cycleTime.mean)}</chakra.span>
    </Box>
  );
}

/** How long each waits, and with how many others; where they are not there by night, how much of it they were. */
function queueOf({ waitingMean, waitingBusyMean, queueMean }: Forecast["resources"][number]): string {
  const atWork = waitingBusyMean < 0.95 * waitingMean ? timeWords(waitingBusyMean) : undefined;
  return words.queue(timeWords(waitingMean), atWork, decimals(queueMean));
}

function Shown({ onShow, children }: { readonly onShow: () => void; readonly children: ReactNode }) {
  return (
    <chakra.button
      type="button"
      fontWeight="700"
      cursor="pointer"
      _hover={{ textDecoration: "underline" }}
      onClick={onShow}
    >
      {children}
    </chakra.button>
  );
}

function People(props: {
  readonly resource: Forecast["resources"][number];
  readonly element: Forecast["elements"][number] | undefined;
  readonly hue: string | undefined;
  readonly onShow: (element: Id) => void;
}) {
  const { resource, element, hue, onShow } = props;
  return (
    <>
      <Name of={resource} hue={hue} />
      {element && <Before element={element} onShow={onShow} />}
    </>
  );
}

function Name({ of, hue }: { readonly of: Forecast["resources"][number]; readonly hue: string | undefined }) {
  return (
    <Flex as="span" display="inline-flex" align="center" gap={1.5} verticalAlign="bottom">
      <Box as="span" w="5px" h="20px" bg={hue ?? "pencil"} borderRadius="1px" />
      <b>{of.name}</b>
    </Flex>
  );
}

function Before(props: { readonly element: Forecast["elements"][number]; readonly onShow: (element: Id) => void }) {
  const { element, onShow } = props;
  return (
    <>
      {words.before}
      <Shown onShow={() => onShow(element.id)}>{element.name}</Shown>
    </>
  );
}
