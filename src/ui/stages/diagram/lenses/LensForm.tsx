"use client";
import { Button, chakra, Field, Flex, Input } from "@chakra-ui/react";
import { useMemo, useState } from "react";
import {
  amountTests,
  choiceTests,
  fieldKinds,
  isLensFeel,
  type Lens,
  type LensCondition,
  type LensField,
  type LensTest,
  lensFields,
  lensKinds,
  lensLines,
  lensPens,
  lensSchema,
  lensSigns,
  wordTests,
} from "@/core/lens";
import { Choice } from "../../../controls/fields";
import { wordsOf } from "../../../kernel/wordsOf";
import { text } from "../../../messages";
import { readValue, sentenceOf, valueWords } from "../../../version/lenses/sentence";
import { useMarked } from "../../../version/lenses/useLenses";
import { LensSample } from "./LensSample";

const words = text.lenses;

/** A condition while it is written: what was typed stands beside what it was read as. */
interface Draft {
  readonly condition: LensCondition;
  readonly typed: string;
}
const draftOf = (condition: LensCondition): Draft => ({
  condition,
  typed: valueWords(condition.field, condition.value),
});
const first: LensCondition = { field: "waits", test: "more", value: 7200 };
const usual: Omit<Lens, "name" | "conditions"> = {
  which: "all",
  feel: "",
  pen: "brick",
  line: "dashed",
  sign: "clock",
};

interface LensFormProps {
  /** Left out for a new one. */
  readonly lens?: Lens;
  readonly onKeep: (lens: Lens) => Promise<void>;
  readonly onBack: () => void;
}

/** A lens is made as a sentence: what is looked at, how, compared with what; and how it is marked. */
export function LensForm({ lens, onKeep, onBack }: LensFormProps) {
  const [drafts, setDrafts] = useState<readonly Draft[]>(() => (lens?.conditions ?? [first]).map(draftOf));
  const [look, setLook] = useState<typeof usual>(lens ?? usual);
  const [named, setNamed] = useState(lens?.name ?? "");
  const [problem, setProblem] = useState("");
  const [isBusy, setBusy] = useState(false);
  const conditions = drafts.map(({ condition }) => condition);
  const reads = sentenceOf({ ...look, conditions });
  const made = lensSchema.safeParse({ ...look, conditions, name: (named.trim() || reads).slice(0, 200) });
  const asked = JSON.stringify(made.data ?? null);
  const [marked = []] = useMarked(useMemo(() => (asked === "null" ? [] : [JSON.parse(asked) as Lens]), [asked]));
  const isFeelWrong = look.feel.trim() !== "" && !isLensFeel(look.feel);
  const keep = async () => {
    if (!made.success) return setProblem([...new Set(made.error.issues.map(({ message }) => message))].join(" "));
    setBusy(true);
    try {
      await onKeep(made.data);
    } catch (error) {
      setProblem(wordsOf(error));
      setBusy(false);
    }
  };
  const set = (at: number, draft: Draft) => setDrafts(drafts.map((one, index) => (index === at ? draft : one)));
  return (
    <Flex direction="column" gap={4} pb={4}>
      <chakra.fieldset>
        <chakra.legend fontWeight="600" mb={1}>
          {words.mark}
        </chakra.legend>
        {drafts.map((draft, at) => (
          <ConditionLine
            key={at}
            draft={draft}
            joint={at === 0 ? "" : look.which === "all" ? words.and : words.or}
            onChange={(next) => set(at, next)}
            onRemove={() => setDrafts(drafts.filter((_, index) => index !== at))}
          />
        ))}
        <Flex gap={3} mt={2} align="center">
          <Button size="xs" variant="outline" onClick={() => setDrafts([...drafts, draftOf(first)])}>
            {words.more}
          </Button>
          {drafts.length > 1 && (
            <Choice
              label={words.which}
              value={look.which}
              options={[
                ["all", words.all],
                ["any", words.any],
              ]}
              onChoose={(which) => setLook({ ...look, which })}
            />
          )}
        </Flex>
      </chakra.fieldset>
      <Field.Root invalid={isFeelWrong}>
        <Field.Label>{words.feel}</Field.Label>
        <Input
          value={look.feel}
          maxLength={2000}
          placeholder={words.feelHint}
          onChange={(event) => setLook({ ...look, feel: event.target.value })}
        />
        <Field.HelperText>{words.feelNames}</Field.HelperText>
        <Field.ErrorText>{words.feelWrong}</Field.ErrorText>
      </Field.Root>
      <chakra.fieldset>
        <chakra.legend fontWeight="600" mb={1}>
          {words.look}
        </chakra.legend>
        <Flex gap={3} align="center" wrap="wrap">
          <Choice
            label={words.pen}
            value={look.pen}
            options={lensPens.map((one) => [one, words.pens[one]] as const)}
            onChoose={(pen) => setLook({ ...look, pen })}
          />
          <Choice
            label={words.line}
            value={look.line}
            options={lensLines.map((one) => [one, words.lines[one]] as const)}
            onChoose={(line) => setLook({ ...look, line })}
          />
          <Choice
            label={words.sign}
            value={look.sign}
            options={lensSigns.map((one) => [one, words.signs[one]] as const)}
            onChoose={(sign) => setLook({ ...look, sign })}
          />
          <LensSample lens={{ ...look, name: "" }} />
        </Flex>
      </chakra.fieldset>
      <Field.Root>
        <Field.Label>{words.name}</Field.Label>
        <Input
          value={named}
          maxLength={200}
          placeholder={reads === "" ? words.nameHint : reads}
          onChange={(event) => setNamed(event.target.value)}
        />
      </Field.Root>
      <chakra.p role="status" data-testid="lens-marks">
        {words.marks(marked.length)}
      </chakra.p>
      <chakra.p color="quiet" fontSize="12px">
        {words.needsForecast}
      </chakra.p>
      {problem !== "" && (
        <chakra.p role="alert" color="trouble">
          {problem}
        </chakra.p>
      )}
      <Flex gap={2} justify="flex-end">
        <Button variant="ghost" onClick={onBack}>
          {words.back}
        </Button>
        <Button bg="accent" color="onAccent" disabled={isBusy || !made.success} onClick={() => void keep()}>
          {words.save}
        </Button>
      </Flex>
    </Flex>
  );
}

const testsOf = (field: LensField): readonly LensTest[] =>
  field === "own"
    ? [...wordTests, "more", "less"]
    : fieldKinds[field] === "choice"
      ? choiceTests
      : fieldKinds[field] === "words"
        ? wordTests
        : amountTests;

interface ConditionLineProps {
  readonly draft: Draft;
  readonly joint: string;
  readonly onChange: (draft: Draft) => void;
  readonly onRemove: () => void;
}

function ConditionLine({ draft: { condition, typed }, joint, onChange, onRemove }: ConditionLineProps) {
  const { field, test, name = "" } = condition;
  const needsValue = test !== "isThere" && test !== "isMissing";
  const change = (next: { field?: LensField; test?: LensTest; name?: string; typed?: string }) => {
    const fieldNow = next.field ?? field;
    const known = testsOf(fieldNow);
    const wanted = next.test ?? test;
    const testNow = known.includes(wanted) ? wanted : (known[0] as LensTest);
    const typedNow =
      next.field !== undefined && fieldKinds[next.field] !== fieldKinds[field]
        ? next.field === "kind"
          ? "step"
          : ""
        : (next.typed ?? typed);
    const value = next.typed === undefined && typedNow === typed ? condition.value : readValue(fieldNow, typedNow);
    const nameNow = next.name ?? name;
    onChange({
      typed: typedNow,
      condition: {
        field: fieldNow,
        test: testNow,
        ...(fieldNow === "own" && { name: nameNow }),
        ...(testNow !== "isThere" && testNow !== "isMissing" && value !== undefined && { value }),
      },
    });
  };
  const isUnread = needsValue && typed !== "" && condition.value === undefined;
  return (
    <Flex gap={2} align="center" wrap="wrap" py={1} data-testid="lens-condition">
      <chakra.span w="28px" color="quiet">
        {joint}
      </chakra.span>
      <Choice
        label={words.field}
        value={field}
        options={lensFields.map((one) => [one, words.fields[one]] as const)}
        onChoose={(next) => change({ field: next })}
      />
      {field === "own" && (
        <Input
          size="xs"
          w="120px"
          aria-label={words.attribute}
          value={name}
          onChange={(event) => change({ name: event.target.value })}
        />
      )}
      <Choice
        label={words.test}
        value={test}
        options={testsOf(field).map((one) => [one, words.tests[one]] as const)}
        onChoose={(next) => change({ test: next })}
      />
      {needsValue &&
        (field === "kind" ? (
          <Choice
            label={words.value}
            value={typed}
            options={lensKinds.map((one) => [one, words.kinds[one]] as const)}
            onChoose={(next) => change({ typed: next })}
          />
        ) : (
          <Input
            size="xs"
            w="140px"
            aria-label={words.value}
            aria-invalid={isUnread}
            value={typed}
            placeholder={
              fieldKinds[field] === "time" ? words.timeHint : fieldKinds[field] === "share" ? words.shareHint : ""
            }
            onChange={(event) => change({ typed: event.target.value })}
          />
        ))}
      {isUnread && (
        <chakra.span color="trouble" fontSize="12px">
          {words.notRead}
        </chakra.span>
      )}
      <Button size="xs" variant="ghost" aria-label={words.less} onClick={onRemove}>
        ×
      </Button>
    </Flex>
  );
}
