"use client";
import { Button, chakra, Field, Input } from "@chakra-ui/react";
import { type FormEvent, useState } from "react";
import { wordsOf } from "../kernel/wordsOf";
import { text } from "../messages";

export interface AskedLine {
  readonly name: string;
  readonly label: string;
  readonly type: "text" | "email" | "password";
  /** What a browser fills in by itself. */
  readonly fills: string;
}

/** A few lines about one's own access; stays with the reason when they are not taken. */
export function SignInForm({
  lines,
  action,
  onSend,
}: {
  readonly lines: readonly AskedLine[];
  readonly action: string;
  readonly onSend: (values: { readonly [name: string]: string }) => Promise<void>;
}) {
  const [values, setValues] = useState<{ readonly [name: string]: string }>({});
  const [problem, setProblem] = useState("");
  const [isBusy, setBusy] = useState(false);
  const send = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    setProblem("");
    try {
      await onSend(values);
    } catch (error) {
      setProblem(wordsOf(error));
    }
    setBusy(false);
  };
  return (
    <chakra.form onSubmit={send} display="flex" flexDirection="column" gap={3} w="100%">
      {lines.map(({ name, label, type, fills }, at) => (
        <Field.Root key={name} required>
          <Field.Label>{label}</Field.Label>
          <Input
            type={type}
            name={name}
            autoComplete={fills}
            autoFocus={at === 0}
            maxLength={200}
            value={values[name] ?? ""}
            onChange={(event) => setValues({ ...values, [name]: event.target.value })}
          />
        </Field.Root>
      ))}
      {problem !== "" && (
        <chakra.p role="alert" color="trouble" fontSize="13px">
          {problem}
        </chakra.p>
      )}
      <Button
        type="submit"
        bg="accent"
        color="onAccent"
        alignSelf="flex-start"
        disabled={isBusy || lines.some(({ name }) => !values[name])}
      >
        {action}
      </Button>
    </chakra.form>
  );
}

/** What is asked of somebody who has a password. */
export const signInLines = (): readonly AskedLine[] => [
  { name: "email", label: text.signIn.email, type: "email", fills: "username" },
  { name: "password", label: text.signIn.password, type: "password", fills: "current-password" },
];
