"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { nanoid } from "nanoid";
import { useState } from "react";
import { live } from "@/contract";
import { DialogFrame } from "../../controls/DialogFrame";
import { TextField } from "../../controls/fields";
import { tell } from "../../controls/notices";
import { ask } from "../../kernel/ask";
import { lookAgain, useAsked } from "../../kernel/queries";
import { wordsOf } from "../../kernel/wordsOf";
import { text } from "../../messages";

const words = text.live;

/** A run takes a newer package; cases of earlier ones are moved to it, those that can be. */
export function Renew(props: {
  readonly at: { readonly version: string; readonly run: string };
  readonly edition: number;
  readonly onClose: () => void;
}) {
  const { at, edition, onClose } = props;
  const { data } = useAsked(live.listMoves, at, { keepsLast: true });
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const [reason, setReason] = useState("");
  const [problem, setProblem] = useState("");
  const [act, setAct] = useState(() => nanoid());
  const moves = data?.moves ?? [];
  const chosen = moves.filter(({ number, why }) => why.length === 0 && !left.has(number)).map(({ number }) => number);
  const doing = async (what: () => Promise<void>) => {
    setProblem("");
    try {
      await what();
    } catch (error) {
      setProblem(wordsOf(error));
    } finally {
      await lookAgain([{ kind: "version", id: at.version }]);
    }
  };
  const take = () =>
    doing(async () => {
      const taken = await ask(live.renewRun, { ...at, edition: edition + 1 });
      tell({ description: words.taken(taken.edition) });
    });
  const move = () =>
    doing(async () => {
      const { moved, refused } = await ask(live.moveCases, { ...at, numbers: chosen, act, reason });
      setAct(nanoid());
      tell({ description: words.moved(moved) });
      if (refused.length > 0) setProblem(words.notMoved(refused.length));
    });
  return (
    <DialogFrame
      title={words.newerTitle}
      width="560px"
      onClose={onClose}
      aside={<chakra.span color="quiet">{words.package(edition)}</chakra.span>}
      footer={
        <>
          <Button variant="outline" onClick={onClose}>
            {text.dialog.cancel}
          </Button>
          <Button
            bg="accent"
            color="onAccent"
            disabled={chosen.length === 0 || reason.trim() === ""}
            onClick={() => void move()}
          >
            {words.moveChosen(chosen.length)}
          </Button>
        </>
      }
    >
      <Flex direction="column" gap={3} data-testid="renew">
        <chakra.p color="quiet">{words.newerExplain}</chakra.p>
        <Button alignSelf="flex-start" size="xs" variant="outline" onClick={() => void take()}>
          {words.takeNewer}
        </Button>
        <chakra.h3 fontSize="13px" fontWeight="700">
          {words.moves}
        </chakra.h3>
        {moves.length === 0 ? (
          <chakra.p color="quiet">{words.noMoves}</chakra.p>
        ) : (
          <chakra.ul listStyleType="none" maxH="240px" overflow="auto" tabIndex={0}>
            {moves.map(({ number, edition: from, why }) => (
              <chakra.li key={number} py={1} borderTopWidth="1px" borderColor="line">
                <chakra.label display="flex" gap={2} alignItems="baseline">
                  <input
                    type="checkbox"
                    disabled={why.length > 0}
                    checked={why.length === 0 && !left.has(number)}
                    onChange={(event) => {
                      const next = new Set(left);
                      if (event.target.checked) next.delete(number);
                      else next.add(number);
                      setLeft(next);
                    }}
                  />
                  <span>
                    {words.table.open(number)}, {words.package(from)}:{" "}
                    {why.length === 0 ? words.canMove : why.join(" ")}
                  </span>
                </chakra.label>
              </chakra.li>
            ))}
          </chakra.ul>
        )}
        {data?.isMore && <chakra.p color="quiet">{words.moreMoves}</chakra.p>}
        {chosen.length > 0 && (
          <chakra.div>
            <chakra.p fontSize="13px">{words.acts.reason}</chakra.p>
            <TextField label={words.acts.reason} value={reason} onCommit={setReason} onType={setReason} />
          </chakra.div>
        )}
        {problem && (
          <chakra.p role="alert" color="trouble">
            {problem}
          </chakra.p>
        )}
      </Flex>
    </DialogFrame>
  );
}
