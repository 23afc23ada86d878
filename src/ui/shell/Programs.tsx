"use client";
import { Box, Button, chakra, Field, Input } from "@chakra-ui/react";
import { nanoid } from "nanoid";
import { type FormEvent, useState } from "react";
import { live } from "@/contract";
import { DialogFrame } from "../controls/DialogFrame";
import { momentWords } from "../controls/moment";
import { ask } from "../kernel/ask";
import { lookAgain, useAsked } from "../kernel/queries";
import { wordsOf } from "../kernel/wordsOf";
import { text } from "../messages";

const words = text.programs;

/** The keys by which other programs begin cases, send messages and complete work; a key is shown once, when it is made. */
export function Programs({ onClose }: { readonly onClose: () => void }) {
  const { data } = useAsked(live.listKeys, {});
  const [name, setName] = useState("");
  const [made, setMade] = useState<{ readonly name: string; readonly key: string } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const trying = async (deed: () => Promise<void>) => {
    setProblem(null);
    try {
      await deed();
    } catch (error) {
      setProblem(wordsOf(error));
    }
    await lookAgain([{ kind: "workspace" }]);
  };
  const make = (event: FormEvent) => {
    event.preventDefault();
    void trying(async () => {
      const { key } = await ask(live.makeKey, { id: nanoid(12), name: name.trim() });
      setMade({ name: name.trim(), key });
      setName("");
    });
  };
  return (
    <DialogFrame
      title={words.title}
      width="640px"
      onClose={onClose}
      footer={
        <Button variant="ghost" onClick={onClose}>
          {text.dialog.close}
        </Button>
      }
    >
      <chakra.p color="quiet" mb={4}>
        {words.explain}{" "}
        <chakra.a
          href="/api/programs/openapi.json"
          target="_blank"
          color="accent"
          textDecoration="underline"
          rel="noopener"
        >
          {words.description}
        </chakra.a>
      </chakra.p>
      {data?.keys.length === 0 && <chakra.p mb={4}>{words.none}</chakra.p>}
      {(data?.keys.length ?? 0) > 0 && (
        <chakra.table
          w="100%"
          mb={4}
          fontSize="13px"
          css={{ "& td, & th": { padding: "4px 8px 4px 0", textAlign: "start" } }}
        >
          <thead>
            <tr>
              <th>{words.program}</th>
              <th>{words.inNameOf}</th>
              <th>{words.since}</th>
              <td />
            </tr>
          </thead>
          <tbody>
            {data?.keys.map((key) => (
              <chakra.tr key={key.id} borderTopWidth="1px" borderColor="line">
                <td>{key.name}</td>
                <td>{key.memberName}</td>
                <td>{momentWords(key.at)}</td>
                <td>
                  {key.isWithdrawn ? (
                    words.withdrawn
                  ) : (
                    <Button
                      size="xs"
                      variant="outline"
                      aria-label={words.withdrawOne(key.name)}
                      onClick={() =>
                        void trying(async () => {
                          await ask(live.withdrawKey, { id: key.id });
                          setMade(null);
                        })
                      }
                    >
                      {words.withdraw}
                    </Button>
                  )}
                </td>
              </chakra.tr>
            ))}
          </tbody>
        </chakra.table>
      )}
      {made && (
        <Box role="status" mb={4}>
          <p>{words.shownOnce(made.name)}</p>
          <chakra.code display="block" mt={1} overflowWrap="anywhere" userSelect="all">
            {made.key}
          </chakra.code>
        </Box>
      )}
      <chakra.form onSubmit={make} display="flex" gap={2} alignItems="end">
        <Field.Root invalid={problem !== null}>
          <Field.Label>{words.name}</Field.Label>
          <Input value={name} maxLength={200} onChange={(event) => setName(event.target.value)} />
          <Field.ErrorText>{problem}</Field.ErrorText>
        </Field.Root>
        <Button type="submit" bg="accent" color="onAccent" disabled={name.trim() === ""}>
          {words.make}
        </Button>
      </chakra.form>
    </DialogFrame>
  );
}
