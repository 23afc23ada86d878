"use client";
import { Box, chakra } from "@chakra-ui/react";
import { useId, useState } from "react";
import { shownItems } from "@/core/data";
import { caseDataOf, type DataType, readValue } from "@/core/feel";
import { formOf, type Id, nameOf } from "@/core/model";
import { dataAsked, type World } from "@/core/tokens";
import { NewLine } from "../../controls/trayParts";
import { text, worded } from "../../messages";
import { FormView } from "../../version/FormView";
import type { Standing } from "./useStanding";
import { useWalk } from "./walkStore";

/** What the case is about: values that conditions are decided by. Those that conditions ask for stand here from the start. */
export function DataColumn({
  world,
  process,
  places,
}: {
  readonly world: World;
  readonly process: Id;
  readonly places: Standing["places"];
}) {
  const { data, give } = useWalk();
  const [added, setAdded] = useState("");
  const asked = dataAsked(world);
  const filled = places.flatMap(({ instance, node }) => {
    const step = instance.model.elements.get(node);
    const form = step && formOf(step);
    return step && form ? [{ step, model: instance.model, items: shownItems(instance.model, step.id, form) }] : [];
  })[0];
  const inForm = new Set(filled?.items.map(({ item }) => item.path[0]));
  const names = [...new Set([...asked.keys(), ...Object.keys(data)])].filter((name) => !inForm.has(name));
  const values = caseDataOf(data, asked);
  return (
    <Box key={process}>
      <chakra.p color="quiet" fontSize="12px" mb={2}>
        {names.length === 0 ? text.walk.noData : text.walk.dataCounts}
      </chakra.p>
      {filled && (
        <Box mb={3} pb={3} borderBottomWidth="1px" borderColor="line" data-testid="walk-form">
          <chakra.h3 fontSize="13px" fontWeight="700" mb={1.5}>
            {nameOf(filled.model, filled.step.id)}
          </chakra.h3>
          <FormView
            key={filled.step.id}
            items={filled.items}
            data={values}
            onChange={(next) => {
              for (const [name, value] of Object.entries(next))
                if (value !== values[name])
                  give(
                    name,
                    value === undefined || value === null
                      ? ""
                      : typeof value === "object"
                        ? JSON.stringify(value)
                        : String(value),
                  );
            }}
          />
        </Box>
      )}
      {names.map((name) => (
        <Datum
          key={name}
          name={name}
          type={asked.get(name)}
          value={data[name] ?? ""}
          onChange={(to) => give(name, to)}
        />
      ))}
      <NewLine
        label={text.walk.addData}
        value={added}
        onType={setAdded}
        onEnter={() => {
          if (added.trim()) give(added.trim(), data[added.trim()] ?? "");
          setAdded("");
        }}
      />
    </Box>
  );
}

const fieldStyle = {
  width: "104px",
  height: "26px",
  paddingInline: "8px",
  background: "var(--chakra-colors-paper)",
  borderWidth: "1px",
  borderRadius: "6px",
} as const;

/** One value: what cannot be read as what is asked for stays as typed, with the reason, and counts for nothing. */
function Datum({
  name,
  type,
  value,
  onChange,
}: {
  readonly name: string;
  readonly type: DataType | undefined;
  readonly value: string;
  readonly onChange: (value: string) => void;
}) {
  const field = useId();
  const read = value.trim() === "" ? undefined : readValue(value, type);
  const reason = read && "reason" in read ? worded(read.reason) : undefined;
  const isYesNo = type === "yesNo" && (reason === undefined || value === "");
  return (
    <Box mb={1.5}>
      <Box display="flex" gap={2} alignItems="center">
        <chakra.label htmlFor={field} flex="1" minW={0} truncate title={name}>
          {name}
        </chakra.label>
        {isYesNo ? (
          <chakra.select
            id={field}
            css={fieldStyle}
            borderColor="line"
            value={read && "value" in read ? (read.value ? "yes" : "no") : ""}
            onChange={(event) => onChange(event.target.value)}
          >
            <option value="">{text.walk.value}</option>
            <option value="yes">{text.walk.yes}</option>
            <option value="no">{text.walk.no}</option>
          </chakra.select>
        ) : (
          <chakra.input
            id={field}
            css={fieldStyle}
            borderColor={reason ? "trouble" : "line"}
            aria-invalid={reason !== undefined}
            aria-describedby={reason && `${field}-reason`}
            value={value}
            placeholder={type ? text.walk.types[type] : text.walk.value}
            _placeholder={{ color: "quiet" }}
            onKeyDown={(event) => event.stopPropagation()}
            onChange={(event) => onChange(event.target.value)}
          />
        )}
      </Box>
      {reason && (
        <chakra.p id={`${field}-reason`} color="trouble" fontSize="12px">
          {reason}
        </chakra.p>
      )}
    </Box>
  );
}
