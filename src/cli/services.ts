import { writeFileSync } from "node:fs";
import { basename } from "node:path";
import { writeBpmn } from "@/core/bpmn";
import { perform } from "@/core/commands";
import { type Description, type Field, readDescription } from "@/core/descriptions";
import type { Model } from "@/core/model";
import { bindingsOf, boundAs, type Candidate, candidateFrom, candidatesOf, openApiOf } from "@/core/services";
import { descriptionFile } from "./beside";
import { callerPath, EXIT, readModel, UnusableInput } from "./input";

/** `lane services FILE`: what a description of services holds, or what services a model could have and is bound to. */
export function services(args: readonly string[], json: boolean): number {
  const [file, ...rest] = args;
  if (!file || file.startsWith("--")) throw new UnusableInput("services needs a description or a model");
  const isModel = /\.(bpmn|csv)$/i.test(file);
  if (rest.length === 0) return isModel ? tellModel(readModel(file), json) : tellDescription(file, json);
  if (rest[0] === "--export") {
    const [, candidate, out, ...more] = rest;
    if (!candidate || !out || more.length > 0)
      throw new UnusableInput("services --export needs a candidate and the file to write");
    return exportCandidate(readModel(file), candidate, out, json);
  }
  return bind(file, rest, json);
}

function tellDescription(file: string, json: boolean): number {
  const { interfaces, problems } = descriptionIn(file);
  const names = (fields: readonly Field[]) => fields.map(({ name }) => name);
  const told = interfaces.map(({ name, operations }) => ({
    name,
    operations: operations.map((operation) => ({
      name: operation.name,
      in: names(operation.in),
      out: names(operation.out),
      errors: operation.errors,
    })),
  }));
  const words = problems.map(({ text }) => text);
  if (json) process.stdout.write(`${JSON.stringify({ interfaces: told, problems: words }, null, 2)}\n`);
  else {
    for (const { name, operations } of told) {
      process.stdout.write(`${name}\n`);
      for (const operation of operations)
        process.stdout.write(
          `  ${operation.name}(${operation.in.join(", ")}) gives ${operation.out.join(", ") || "nothing"}${operation.errors.length > 0 ? `; errors ${operation.errors.join(", ")}` : ""}\n`,
        );
    }
    for (const word of words) process.stdout.write(`problem: ${word}\n`);
  }
  return problems.length > 0 ? EXIT.no : EXIT.done;
}

function tellModel(model: Model, json: boolean): number {
  const candidates = candidatesOf(model);
  const bound = boundIn(model);
  if (json) process.stdout.write(`${JSON.stringify({ candidates, bound }, null, 2)}\n`);
  else {
    for (const { name, operations } of candidates) {
      process.stdout.write(`candidate ${name}\n`);
      for (const operation of operations) process.stdout.write(`  ${operation.name}\n`);
    }
    for (const one of bound) process.stdout.write(`${one.element} is bound to ${one.operation} of ${one.interface}\n`);
    if (candidates.length + bound.length === 0)
      process.stdout.write("no lane has activities, and nothing is bound to an operation\n");
  }
  return EXIT.done;
}

function exportCandidate(model: Model, named: string, out: string, json: boolean): number {
  const description = openApiOf(model, candidateNamed(model, named));
  write(out, `${JSON.stringify(description, null, 2)}\n`);
  if (json) process.stdout.write(`${JSON.stringify({ written: out }, null, 2)}\n`);
  return EXIT.done;
}

function candidateNamed(model: Model, named: string): Candidate {
  const all = candidatesOf(model);
  const found = all.filter(({ from }) => from === named);
  const byName = found.length > 0 ? found : all.filter(({ name }) => name === named);
  if (byName.length > 1)
    throw new UnusableInput(`${byName.length} candidates are called "${named}"; say which by its id`);
  const candidate = byName[0] ?? candidateFrom(model, named);
  if (!candidate)
    throw new UnusableInput(`there is no candidate "${named}"; there are ${list(all.map(({ name }) => name))}`);
  return candidate;
}

/** Binds tasks one after the other; where one cannot be, nothing is written. */
function bind(file: string, rest: readonly string[], json: boolean): number {
  const bindings: string[] = [];
  const others: string[] = [];
  for (let at = 0; at < rest.length; at++) {
    if (rest[at] === "--bind") bindings.push(rest[++at] ?? "");
    else others.push(rest[at] as string);
  }
  const [out, ...more] = others;
  if (bindings.length === 0 || !out || out.startsWith("--") || more.length > 0)
    throw new UnusableInput("services takes --bind TASK=DESCRIPTION#OPERATION and the file to write, or --export");
  let model = readModel(file);
  const read = new Map<string, Description>();
  for (const binding of bindings) {
    const [, task, source, operation] = /^([^=]+)=(.+?)#(.+)$/.exec(binding) ?? [];
    if (!task || !source || !operation)
      throw new UnusableInput(`"${binding}" is not of the form TASK=DESCRIPTION#OPERATION`);
    if (!model.elements.has(task)) throw new UnusableInput(`${file}: there is no element "${task}"`);
    const description = read.get(source) ?? descriptionIn(source);
    read.set(source, description);
    const service = description.interfaces.find(({ operations }) => operations.some(({ name }) => name === operation));
    const found = service?.operations.find(({ name }) => name === operation);
    if (!service || !found) {
      const names = description.interfaces.flatMap(({ operations }) => operations.map(({ name }) => name));
      throw new UnusableInput(`${source}: there is no operation "${operation}"; there are ${list(names)}`);
    }
    const to = boundAs(basename(source), description, service.name, found);
    const done = perform(model, { type: "bindOperation", id: task, to });
    if (!done.ok) throw new UnusableInput(`${file}: ${done.problems[0]?.message ?? "the task cannot be bound"}`);
    model = done.value.model;
  }
  write(out, writeBpmn(model));
  return tellBound(model, json);
}

const boundIn = (model: Model) =>
  bindingsOf(model).map(({ element, interface: service, operation }) => ({
    element: element.id,
    interface: service.name ?? service.id,
    operation: operation.name ?? operation.id,
  }));

function tellBound(model: Model, json: boolean): number {
  const bound = boundIn(model);
  if (json) process.stdout.write(`${JSON.stringify({ bound }, null, 2)}\n`);
  else
    for (const one of bound) process.stdout.write(`${one.element} is bound to ${one.operation} of ${one.interface}\n`);
  return EXIT.done;
}

function descriptionIn(file: string): Description {
  const read = readDescription(descriptionFile(file));
  if (read.ok) return read.value;
  const [problem] = read.problems;
  const place = problem?.line === undefined ? "" : `${problem.line}:${problem.column ?? 1}:`;
  throw new UnusableInput(`${file}:${place} ${problem?.message ?? "cannot be read"}`);
}

function write(out: string, text: string): void {
  try {
    writeFileSync(callerPath(out), text);
  } catch {
    throw new UnusableInput(`${out}: the file cannot be written`);
  }
}

const list = (names: readonly string[]) =>
  names.length === 0
    ? "none"
    : `${names.slice(0, 20).join(", ")}${names.length > 20 ? ` and ${names.length - 20} more` : ""}`;
