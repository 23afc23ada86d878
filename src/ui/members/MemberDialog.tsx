"use client";
import { Button, chakra, Field, Flex, Input } from "@chakra-ui/react";
import { nanoid } from "nanoid";
import { type FormEvent, useState } from "react";
import { directory, membership } from "@/contract";
import type { MemberAccount, MemberRow } from "@/contract/members";
import { type AreaSeat, areaSeats, type Seat, seats } from "@/contract/seats";
import { DialogFrame } from "../controls/DialogFrame";
import { Choice } from "../controls/fields";
import { ask } from "../kernel/ask";
import { lookAgain, useAsked } from "../kernel/queries";
import { wordsOf } from "../kernel/wordsOf";
import { text } from "../messages";
import { useAreas } from "./useAreas";

const words = text.members;

interface MemberDialogProps {
  /** Left out for a new one. */
  readonly member?: MemberRow;
  readonly account?: MemberAccount | undefined;
  readonly signsIn: boolean;
  readonly onClose: () => void;
}

/** Who a member is: name, address, seats, roles. */
export function MemberDialog({ member, account, signsIn, onClose }: MemberDialogProps) {
  const [id] = useState(() => member?.id ?? nanoid(12));
  const [name, setName] = useState(member?.name ?? "");
  const [email, setEmail] = useState(account?.email ?? "");
  const [seat, setSeat] = useState<Seat>(member?.seat ?? "analyst");
  const [inAreas, setInAreas] = useState<readonly AreaSeat[]>(member?.areas ?? []);
  const [roles, setRoles] = useState<readonly string[]>(member?.roles ?? []);
  const [problem, setProblem] = useState("");
  const [isBusy, setBusy] = useState(false);
  const save = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    setProblem("");
    try {
      const address = email.trim() === "" ? null : email.trim();
      const asked = { id, name: name.trim(), roles: [...roles], seat, areas: [...inAreas] };
      await ask(membership.setMember, { ...asked, ...(signsIn && { email: address }) });
      await lookAgain([{ kind: "workspace" }]);
      onClose();
    } catch (error) {
      setProblem(wordsOf(error));
      setBusy(false);
    }
  };
  return (
    <DialogFrame
      title={member ? words.changeOf(member.name) : words.add}
      width="560px"
      onClose={onClose}
      footer={
        <>
          <Button variant="ghost" onClick={onClose}>
            {text.dialog.cancel}
          </Button>
          <Button type="submit" form="member" bg="accent" color="onAccent" disabled={isBusy || name.trim() === ""}>
            {words.save}
          </Button>
        </>
      }
    >
      <chakra.form id="member" onSubmit={save} display="flex" flexDirection="column" gap={4}>
        <Field.Root required>
          <Field.Label>{words.name}</Field.Label>
          <Input value={name} maxLength={200} onChange={(event) => setName(event.target.value)} />
        </Field.Root>
        {signsIn && (
          <Field.Root>
            <Field.Label>{words.email}</Field.Label>
            <Input
              type="email"
              value={email}
              maxLength={200}
              placeholder={words.emailHint}
              onChange={(event) => setEmail(event.target.value)}
            />
          </Field.Root>
        )}
        <chakra.div>
          <chakra.div fontWeight="600">{words.seat}</chakra.div>
          <Flex gap={3} align="center" mt={1}>
            <Choice
              label={words.seat}
              value={seat}
              options={seats.map((one) => [one, words.seats[one]] as const)}
              onChoose={setSeat}
            />
            <chakra.span color="quiet" fontSize="13px">
              {words.may[seat]}
            </chakra.span>
          </Flex>
        </chakra.div>
        <AreaSeats inAreas={inAreas} onChange={setInAreas} />
        <Roles chosen={roles} onChange={setRoles} />
        {problem !== "" && (
          <chakra.p role="alert" color="trouble">
            {problem}
          </chakra.p>
        )}
      </chakra.form>
    </DialogFrame>
  );
}

function AreaSeats(props: { readonly inAreas: readonly AreaSeat[]; readonly onChange: (next: AreaSeat[]) => void }) {
  const { inAreas, onChange } = props;
  const areas = useAreas();
  const free = areas.filter(({ id }) => inAreas.every(({ area }) => area !== id));
  if (areas.length === 0) return null;
  const nameOf = (area: string) => areas.find(({ id }) => id === area)?.name ?? area;
  return (
    <chakra.div>
      <chakra.div fontWeight="600">{words.inAreas}</chakra.div>
      {inAreas.map(({ area, seat }) => (
        <Flex key={area} gap={3} align="center" mt={1}>
          <chakra.span flex="1">{nameOf(area)}</chakra.span>
          <Choice
            label={`${words.seat}, ${nameOf(area)}`}
            value={seat}
            options={areaSeats.map((one) => [one, words.seats[one]] as const)}
            onChoose={(next) => onChange(inAreas.map((one) => (one.area === area ? { area, seat: next } : one)))}
          />
          <Button
            size="xs"
            variant="ghost"
            aria-label={words.removeArea(nameOf(area))}
            onClick={() => onChange(inAreas.filter((one) => one.area !== area))}
          >
            ×
          </Button>
        </Flex>
      ))}
      {free.length > 0 && (
        <chakra.div mt={1}>
          <Choice
            label={words.addArea}
            value=""
            options={[["", `${words.addArea} …`] as const, ...free.map(({ id, name }) => [id, name] as const)]}
            onChoose={(area) => area !== "" && onChange([...inAreas, { area, seat: "analyst" }])}
          />
        </chakra.div>
      )}
    </chakra.div>
  );
}

function Roles(props: { readonly chosen: readonly string[]; readonly onChange: (next: string[]) => void }) {
  const { chosen, onChange } = props;
  const { data } = useAsked(directory.openDirectory, {});
  const roles = (data?.entries ?? []).filter(({ kind }) => kind === "role");
  if (roles.length === 0) return null;
  return (
    <chakra.fieldset>
      <chakra.legend fontWeight="600">{words.roles}</chakra.legend>
      <Flex wrap="wrap" columnGap={4} rowGap={1} mt={1}>
        {roles.map(({ id, name }) => (
          <chakra.label key={id} display="flex" gap={2} alignItems="center">
            <input
              type="checkbox"
              checked={chosen.includes(id)}
              onChange={(event) =>
                onChange(event.target.checked ? [...chosen, id] : chosen.filter((one) => one !== id))
              }
            />
            {name}
          </chakra.label>
        ))}
      </Flex>
    </chakra.fieldset>
  );
}
