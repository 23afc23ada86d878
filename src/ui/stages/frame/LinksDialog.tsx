"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { nanoid } from "nanoid";
import { useState } from "react";
import { inVersion, links } from "@/contract";
import { type LinkRow, leastPassword } from "@/contract/links";
import { DialogFrame } from "../../controls/DialogFrame";
import { FormRow } from "../../controls/FormRow";
import { Choice } from "../../controls/fields";
import { momentWords } from "../../controls/moment";
import { complain, tell } from "../../controls/notices";
import { ask } from "../../kernel/ask";
import { lookAgain, useAsked } from "../../kernel/queries";
import { wordsOf } from "../../kernel/wordsOf";
import { text } from "../../messages";
import { LensChoice } from "../../version/lenses/LensChoice";
import { useLensesOn } from "../../version/lenses/store";
import { useVersion } from "../../version/VersionContext";

const words = text.links;

/** The links of the version: made, shown once, and withdrawn. */
export function LinksDialog({ onClose }: { readonly onClose: () => void }) {
  const version = useVersion((state) => state.info.version.id);
  const { data } = useAsked(links.listLinks, { version }, { keepsLast: true });
  const [token, setToken] = useState<string>();
  const again = () => lookAgain([{ kind: "version", id: version }]);
  const withdraw = async (link: string) => {
    try {
      await ask(links.withdrawLink, { version, link });
    } catch (error) {
      complain(error);
    }
    await again();
  };
  return (
    <DialogFrame
      title={words.title}
      width="620px"
      onClose={onClose}
      footer={
        <Button variant="outline" onClick={onClose}>
          {text.dialog.close}
        </Button>
      }
    >
      <Flex direction="column" gap={3} data-testid="links">
        <chakra.p color="quiet">{words.explain}</chakra.p>
        {token === undefined ? (
          <NewLink
            onMade={async (made) => {
              setToken(made);
              await again();
            }}
          />
        ) : (
          <Made token={token} />
        )}
        {data && data.links.length === 0 && <chakra.p color="quiet">{words.none}</chakra.p>}
        <chakra.ul listStyleType="none">
          {data?.links.map((link) => (
            <LinkLine key={link.id} link={link} onWithdraw={() => void withdraw(link.id)} />
          ))}
        </chakra.ul>
      </Flex>
    </DialogFrame>
  );
}

function LinkLine({ link, onWithdraw }: { readonly link: LinkRow; readonly onWithdraw: () => void }) {
  const { name, revision, allows, hasPassword, expiresAt, member, at, state } = link;
  const facts = [
    revision === null ? words.now : words.revision(revision),
    expiresAt === null ? words.forEver : words.day(expiresAt.slice(0, 10)),
    allows === "comment" ? words.mayComment : "",
    hasPassword ? words.protected : "",
    words.facts(member, momentWords(at)),
  ];
  return (
    <Flex as="li" gap={3} align="center" borderTopWidth="1px" borderColor="line" py={2} data-state={state}>
      <chakra.div flex="1" minW={0}>
        <chakra.span fontWeight="600">{name}</chakra.span>{" "}
        <chakra.span color={state === "open" ? "good" : "trouble"}>{words.states[state]}</chakra.span>
        <chakra.div color="quiet" fontSize="12px">
          {facts.filter(Boolean).join(", ")}
        </chakra.div>
      </chakra.div>
      {state === "open" && (
        <Button size="xs" variant="outline" aria-label={words.withdrawOf(name)} onClick={onWithdraw}>
          {words.withdraw}
        </Button>
      )}
    </Flex>
  );
}

const field = {
  h: "28px",
  px: 2,
  bg: "paper",
  borderWidth: "1px",
  borderColor: "line",
  borderRadius: "6px",
  w: "260px",
} as const;

function NewLink({ onMade }: { readonly onMade: (token: string) => Promise<void> }) {
  const version = useVersion((state) => state.info.version.id);
  const { data } = useAsked(inVersion.listRevisions, { version });
  const [name, setName] = useState("");
  const [revision, setRevision] = useState("");
  const [allows, setAllows] = useState<"read" | "comment">("read");
  const [until, setUntil] = useState("");
  const [password, setPassword] = useState("");
  const [lenses, setLenses] = useState<readonly string[]>(useLensesOn.getState().on);
  const [problem, setProblem] = useState("");
  const [isBusy, setBusy] = useState(false);
  const make = async () => {
    const isShort = password !== "" && password.length < leastPassword;
    setProblem(isShort ? words.tooShort(leastPassword) : "");
    if (isShort) return;
    setBusy(true);
    try {
      // One whose answer was lost cannot be shown any more: each try is another link.
      const made = await ask(links.makeLink, {
        version,
        link: nanoid(12),
        name,
        revision: revision === "" ? null : Number(revision),
        allows,
        until: until === "" ? null : until,
        password: password === "" ? null : password,
        lenses: [...lenses],
      });
      await onMade(made.token);
    } catch (error) {
      setProblem(wordsOf(error));
    }
    setBusy(false);
  };
  return (
    <chakra.form
      display="flex"
      flexDirection="column"
      gap={2}
      onSubmit={(event) => {
        event.preventDefault();
        void make();
      }}
    >
      <FormRow label={words.name}>
        <chakra.input
          {...field}
          aria-label={words.name}
          placeholder={words.nameHint}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
      </FormRow>
      <FormRow label={words.shows}>
        <Choice
          label={words.shows}
          value={revision}
          options={[
            ["", words.now],
            ...(data?.revisions ?? []).map(
              ({ number, reason }) => [String(number), `${words.revision(number)}: ${reason}`] as const,
            ),
          ]}
          onChoose={setRevision}
        />
      </FormRow>
      <FormRow label={words.allows}>
        <Choice
          label={words.allows}
          value={allows}
          options={Object.entries(words.allowed)}
          onChoose={(value) => setAllows(value as typeof allows)}
        />
      </FormRow>
      <FormRow label={words.until}>
        <chakra.input
          {...field}
          type="date"
          aria-label={words.until}
          value={until}
          onChange={(event) => setUntil(event.target.value)}
        />
      </FormRow>
      <FormRow label={words.password}>
        <chakra.input
          {...field}
          type="password"
          autoComplete="new-password"
          aria-label={words.password}
          placeholder={words.passwordHint}
          value={password}
          onChange={(event) => setPassword(event.target.value)}
        />
      </FormRow>
      <LensChoice chosen={lenses} onChoose={setLenses} />
      {problem !== "" && (
        <chakra.p color="trouble" role="alert">
          {problem}
        </chakra.p>
      )}
      <Button
        type="submit"
        size="xs"
        bg="accent"
        color="onAccent"
        alignSelf="flex-start"
        loading={isBusy}
        disabled={name.trim() === ""}
      >
        {words.make}
      </Button>
    </chakra.form>
  );
}

/** The address, shown this once. */
function Made({ token }: { readonly token: string }) {
  const address = `${window.location.origin}/l/${token}`;
  const copy = (value: string) =>
    navigator.clipboard
      .writeText(value)
      .then(() => tell({ description: words.copied }))
      .catch(complain);
  const line = (value: string, label: string) => (
    <Flex gap={2}>
      <chakra.input
        {...field}
        w="100%"
        readOnly
        aria-label={label}
        value={value}
        onFocus={(event) => event.target.select()}
      />
      <Button size="xs" variant="outline" onClick={() => void copy(value)}>
        {words.copy}
      </Button>
    </Flex>
  );
  return (
    <Flex direction="column" gap={2} bg="accentSoft" p={3} borderRadius="6px" data-testid="link-made">
      <chakra.p fontWeight="600">{words.made}</chakra.p>
      {line(address, words.title)}
      <chakra.p>{words.picture}</chakra.p>
      {line(`${address}/picture`, words.picture)}
    </Flex>
  );
}
