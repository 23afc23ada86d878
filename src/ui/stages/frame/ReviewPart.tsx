"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { nanoid } from "nanoid";
import { useState } from "react";
import { membership, review } from "@/contract";
import { type ReviewAnswer, type ReviewRow, reviewAnswers } from "@/contract/review";
import { momentWords } from "../../controls/moment";
import { complain, tell } from "../../controls/notices";
import { PageLink } from "../../controls/PageLink";
import { EmptyState } from "../../controls/states";
import { TypedArea } from "../../controls/TypedArea";
import { ask } from "../../kernel/ask";
import { lookAgain, useAsked } from "../../kernel/queries";
import { text } from "../../messages";
import { useVersion, useVersionStore } from "../../version/VersionContext";

const words = text.review;

/** Rounds of review of the open version: asked for, answered, and whether the last one still holds. */
export function ReviewPart() {
  const version = useVersion((state) => state.info.version.id);
  const { data } = useAsked(review.listReviews, { version }, { keepsLast: true });
  const { data: people } = useAsked(membership.listMembers, {});
  if (!data || !people) return <EmptyState>{text.shell.loading}</EmptyState>;
  const [last, ...earlier] = data.reviews;
  const isOver = last?.state !== "asked" || !last.holds;
  const others = people.members.filter(({ id }) => id !== people.me);
  return (
    <Flex direction="column" flex="1" minH={0} overflow="auto" gap={3} px={4} pb={4} data-testid="reviews">
      {last ? <Round row={last} me={people.me} isLast /> : <chakra.p color="quiet">{words.none}</chakra.p>}
      {isOver && <AskForReview others={others} />}
      {earlier.length > 0 && (
        <chakra.details>
          <chakra.summary cursor="pointer" color="quiet">
            {words.earlier(earlier.length)}
          </chakra.summary>
          {earlier.map((row) => (
            <Round key={row.id} row={row} me={people.me} isLast={false} />
          ))}
        </chakra.details>
      )}
    </Flex>
  );
}

/** Does something about a round, and looks again; what could not be done is told. */
async function doing(version: string, act: () => Promise<unknown>): Promise<boolean> {
  try {
    await act();
    return true;
  } catch (error) {
    complain(error);
    return false;
  } finally {
    await lookAgain([{ kind: "version", id: version }, { kind: "workspace" }]);
  }
}

function AskForReview({ others }: { readonly others: readonly { readonly id: string; readonly name: string }[] }) {
  const version = useVersion((state) => state.info.version.id);
  const store = useVersionStore();
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const [question, setQuestion] = useState("");
  const [due, setDue] = useState("");
  const [isBusy, setBusy] = useState(false);
  const [round, setRound] = useState(() => nanoid(12));
  const send = async () => {
    setBusy(true);
    const isDone = await doing(version, async () => {
      // What is reviewed is what one sees: what is under way has to have arrived.
      await store.getState().settled();
      const asked = { version, review: round, reviewers: [...chosen], question, due: due === "" ? null : due };
      const { revision } = await ask(review.askReview, asked);
      tell({ description: words.asked(revision) });
    });
    setBusy(false);
    if (!isDone) return;
    setRound(nanoid(12));
    setChosen([]);
    setQuestion("");
    setDue("");
  };
  return (
    <Flex direction="column" gap={2} borderTopWidth="1px" borderColor="line" pt={3}>
      <chakra.p color="quiet" fontSize="12px">
        {words.explain}
      </chakra.p>
      <fieldset>
        <chakra.legend fontWeight="600">{words.reviewers}</chakra.legend>
        {others.length === 0 && <chakra.p color="quiet">{words.nobody}</chakra.p>}
        {others.map(({ id, name }) => (
          <chakra.label key={id} display="flex" gap={2} alignItems="center" minH="24px">
            <input
              type="checkbox"
              checked={chosen.includes(id)}
              onChange={(event) =>
                setChosen(event.target.checked ? [...chosen, id] : chosen.filter((one) => one !== id))
              }
            />
            {name}
          </chakra.label>
        ))}
      </fieldset>
      <TypedArea label={words.question} hint={words.questionHint} value={question} onType={setQuestion} />
      <chakra.label display="flex" gap={2} alignItems="center">
        {words.due}
        <chakra.input
          type="date"
          value={due}
          h="26px"
          px={1}
          bg="paper"
          borderWidth="1px"
          borderColor="line"
          borderRadius="6px"
          onChange={(event) => setDue(event.target.value)}
        />
      </chakra.label>
      <Button
        size="xs"
        bg="accent"
        color="onAccent"
        alignSelf="flex-start"
        loading={isBusy}
        disabled={chosen.length === 0}
        onClick={() => void send()}
      >
        {words.ask}
      </Button>
    </Flex>
  );
}

/** One round: how it stands, who said what, and one's own answer where one was asked. */
function Round(props: { readonly row: ReviewRow; readonly me: string; readonly isLast: boolean }) {
  const { row, me, isLast } = props;
  const version = useVersion((state) => state.info.version.id);
  const { state, holds, reviewers, question, due, revision, name, at, isMine } = row;
  const isOpen = isLast && state !== "withdrawn";
  const own = reviewers.find(({ member }) => member === me);
  const id = encodeURIComponent(version);
  return (
    <chakra.section data-testid="review" data-state={state} data-holds={holds} py={2}>
      <chakra.h3
        fontWeight="700"
        color={state === "rejected" ? "trouble" : state === "approved" && holds ? "good" : "ink"}
      >
        {words.states[state]}
        {state === "approved" && (
          <chakra.span fontWeight="400" color={holds ? "quiet" : "trouble"}>
            {`: ${holds ? words.holds : words.lapsed}`}
          </chakra.span>
        )}
      </chakra.h3>
      <chakra.p color="quiet" fontSize="12px">
        {[words.of(name, momentWords(at), revision), due === null ? "" : words.until(due)].filter(Boolean).join(". ")}
      </chakra.p>
      {question !== "" && <chakra.p whiteSpace="pre-line">{question}</chakra.p>}
      <chakra.ul listStyleType="none" my={1}>
        {reviewers.map((one) => (
          <chakra.li key={one.member}>
            <chakra.span fontWeight="600">{one.name}</chakra.span>{" "}
            <chakra.span color={one.answer === "reject" ? "trouble" : "quiet"}>
              {one.answer === null ? words.waiting : words.answered[one.answer]}
            </chakra.span>
            {one.note !== "" && (
              <chakra.span display="block" whiteSpace="pre-line" overflowWrap="anywhere">
                {one.note}
              </chakra.span>
            )}
          </chakra.li>
        ))}
      </chakra.ul>
      <Flex gap={3} align="center">
        {!holds && (
          <PageLink href={`/v/${id}/compare?from=${id}@${revision}&to=${id}`}>
            <chakra.span color="accent" textDecoration="underline">
              {words.compare}
            </chakra.span>
          </PageLink>
        )}
        {isOpen && isMine && (
          <Button
            size="2xs"
            variant="ghost"
            onClick={() => void doing(version, () => ask(review.withdrawReview, { version, review: row.id }))}
          >
            {words.withdraw}
          </Button>
        )}
      </Flex>
      {isOpen && own && <Answer review={row.id} before={own.answer} note={own.note} />}
    </chakra.section>
  );
}

function Answer(props: { readonly review: string; readonly before: ReviewAnswer | null; readonly note: string }) {
  const version = useVersion((state) => state.info.version.id);
  const [note, setNote] = useState(props.note);
  const answer = (said: ReviewAnswer) => {
    // A remark that is none, or a rejection without a reason, helps nobody.
    if (said !== "approve" && note.trim() === "") return complain(new Error(words.needsNote));
    void doing(version, () => ask(review.answerReview, { version, review: props.review, answer: said, note }));
  };
  return (
    <Flex direction="column" gap={2} mt={2}>
      <TypedArea label={words.note} hint={words.noteHint} value={note} onType={setNote} />
      <Flex gap={2} wrap="wrap">
        {reviewAnswers.map((one) => (
          <Button
            key={one}
            size="xs"
            variant={props.before === one ? "solid" : "outline"}
            aria-pressed={props.before === one}
            onClick={() => answer(one)}
          >
            {words.answers[one]}
          </Button>
        ))}
      </Flex>
    </Flex>
  );
}
