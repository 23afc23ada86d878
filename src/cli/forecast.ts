import { processVerdicts } from "@/core/check";
import { compared, type Forecast, figuresAlone, forecast as forecastOf } from "@/core/forecast";
import { isoSeconds, type Model, nameOf, readDuration } from "@/core/model";
import { inputWords, readInput, type Scenario, scenariosOf, withInput } from "@/core/scenario";
import { worldWith } from "@/core/tokens";
import { decisionsFor, EXIT, readModel, UnusableInput } from "./input";

/** `lane forecast FILE.bpmn [--scenario NAME] [--cases N] [--seed S] [--replications R] [--compare OTHER.bpmn] [--vary INPUT=FROM..TO:STEP] [--decisions FILE.dmn]…`. */
export function forecast(args: readonly string[], json: boolean): number {
  const files: string[] = [];
  const options = new Map<string, string>();
  const decisionFiles: string[] = [];
  for (let at = 0; at < args.length; at++) {
    const word = args[at] as string;
    if (!word.startsWith("--")) {
      files.push(word);
      continue;
    }
    if (!["--scenario", "--cases", "--seed", "--replications", "--compare", "--vary", "--decisions"].includes(word))
      throw new UnusableInput(
        `forecast knows no ${word}; there are --scenario, --cases, --seed, --replications, --compare, --vary and --decisions`,
      );
    const value = args[++at];
    if (value === undefined) throw new UnusableInput(`${word} needs a value behind it`);
    if (word === "--decisions") decisionFiles.push(value);
    else options.set(word, value);
  }
  const [file] = files;
  if (!file || files.length > 1) throw new UnusableInput("forecast needs one file");
  const whole = (name: string, least: number, most: number): number | undefined => {
    const text = options.get(name);
    if (text === undefined) return undefined;
    const value = Number(text);
    if (!/^\d+$/.test(text) || value < least || value > most)
      throw new UnusableInput(`${name} ${text}: write a whole number from ${least} to ${most}`);
    return value;
  };
  const cases = whole("--cases", 1, 10_000_000);
  const seed = whole("--seed", 0, Number.MAX_SAFE_INTEGER);
  const replications = whole("--replications", 1, 10_000);
  const asked = {
    ...(cases !== undefined && { cases }),
    ...(seed !== undefined && { seed }),
    ...(replications !== undefined && { replications }),
  };
  const run = (path: string) => {
    const model = readModel(path);
    const scenario = chosen(path, model, options.get("--scenario"), path === file);
    const world = worldWith(model, new Map(), true, decisionsFor(model, decisionFiles));
    return {
      model,
      scenario,
      forecast: (one: Scenario = scenario) => forecastOf(world, one, asked),
    };
  };
  const own = run(file);
  const other = options.get("--compare");
  const vary = options.get("--vary");
  const result = own.forecast();
  const against = other === undefined ? undefined : run(other).forecast();
  const points = vary === undefined ? undefined : varied(vary, own.model, own.scenario, own.forecast);
  const document = {
    ...figuresAlone(result),
    ...(against && { compare: figuresAlone(against), difference: compared(result, against) }),
    ...(points && { vary: points.map(({ value, ...point }) => ({ value, ...figuresAlone(point.forecast) })) }),
  };
  process.stdout.write(json ? `${JSON.stringify(document)}\n` : spoken(own.model, result, against, points));
  return EXIT.done;
}

function chosen(file: string, model: Model, name: string | undefined, isFirst: boolean): Scenario {
  const unsound = processVerdicts(model).find(({ sound }) => sound === false);
  if (unsound)
    throw new UnusableInput(
      `${file}: the process "${nameOf(model, unsound.id) || unsound.id}" is not sound, so no forecast of it holds; lane check says why`,
    );
  const all = scenariosOf(model);
  const [first] = all;
  if (!first) throw new UnusableInput(`${file}: there is no simulation data (BPSim) in this file`);
  if (name === undefined) return first;
  const found = all.find((one) => one.id === name || one.name === name);
  if (found) return found;
  // What it is compared with may call its scenarios otherwise.
  if (!isFirst) return first;
  throw new UnusableInput(
    `${file}: there is no scenario "${name}"; there are ${all.map((one) => `"${one.name}"`).join(", ")}`,
  );
}

interface Varied {
  readonly value: number;
  readonly forecast: Forecast;
}

/** "clerk.quantity=1..5:1", "start.interval=10min..30min:5min". */
function varied(text: string, model: Model, scenario: Scenario, run: (scenario: Scenario) => Forecast): Varied[] {
  const found = /^(.+?)=(.+?)\.\.(.+?):(.+)$/.exec(text);
  const form = `write INPUT=FROM..TO:STEP, INPUT being an element and one of ${inputWords.join(", ")} ("clerk.quantity=1..5:1")`;
  if (!found) throw new UnusableInput(`--vary ${text}: ${form}`);
  const input = readInput(model, scenario, found[1] as string);
  if (!input) throw new UnusableInput(`--vary ${found[1]}: there is no such input; ${form}`);
  const isTime = input.what === "interval" || input.what === "processing";
  const [from, to, step] = found.slice(2).map((word) => {
    const iso = isTime && !/^[\d.]+$/.test(word) ? readDuration(word) : undefined;
    return iso === undefined ? Number(word) : (isoSeconds(iso) ?? Number.NaN);
  }) as [number, number, number];
  if (![from, to, step].every(Number.isFinite) || step <= 0 || to < from || (to - from) / step > 200)
    throw new UnusableInput(`--vary ${text}: ${form}, at most 200 steps; times without a unit are seconds`);
  const points: Varied[] = [];
  for (let at = 0; from + at * step <= to + step * 1e-9; at++) {
    const value = Number((from + at * step).toPrecision(12));
    points.push({ value, forecast: run(withInput(scenario, input, value)) });
  }
  return points;
}

const inWords = (seconds: number): string => {
  const size = Math.abs(seconds);
  if (size < 60) return `${seconds.toFixed(1)} s`;
  if (size < 3600) return `${(seconds / 60).toFixed(1)} min`;
  if (size < 86_400) return `${(seconds / 3600).toFixed(1)} h`;
  return `${(seconds / 86_400).toFixed(1)} days`;
};

function spoken(
  model: Model,
  result: Forecast,
  against: Forecast | undefined,
  points: readonly Varied[] | undefined,
): string {
  const { cycleTime, currency } = result;
  const money = (amount: number) => `${amount.toFixed(2)} ${currency}`;
  const percent = (share: number) => `${(share * 100).toFixed(0)} %`;
  const lines = [
    `${result.scenario.name}: ${Math.round(result.cases)} cases, ${result.replications} replication${result.replications === 1 ? "" : "s"}, seed ${result.seed}`,
    ...result.gaps.map(({ name, taken }) => `  not said: ${name || "?"}; taken: ${taken.text}`),
    ...result.problems.map(({ text }) => `  ${text}`),
    "",
    `A case takes ${inWords(cycleTime.mean)} (95 %: ${inWords(cycleTime.ci95[0])} to ${inWords(cycleTime.ci95[1])}); half are done within ${inWords(cycleTime.p50)}, 9 of 10 within ${inWords(cycleTime.p90)}.`,
    `It waits ${inWords(result.waitingTime.mean)}, is worked on ${inWords(result.processingTime.mean)}, and costs ${money(result.cost.mean)}.`,
    ...result.notEnded.map(({ how, at, cases }) =>
      how === "stuck"
        ? `${cases} cases got stuck at "${at ? nameOf(model, at) || at : "?"}".`
        : `${cases} cases came to no end within the bound of steps; they went round "${at ? nameOf(model, at) || at : "?"}".`,
    ),
    "",
    ...result.resources.map(
      (one) =>
        `${one.name.padEnd(28)} ${String(one.quantity).padStart(3)}  busy ${percent(one.utilization).padStart(5)}  waits for it ${inWords(one.waitingMean).padStart(10)}  queue ${one.queueMean.toFixed(2)}`,
    ),
    "",
    ...result.elements
      .filter(({ waitingMean, processingMean, costTotal }) => waitingMean + processingMean + costTotal > 0)
      .map(
        (one) =>
          `${one.name.padEnd(36).slice(0, 36)} ${one.count.toFixed(0).padStart(8)}  waits ${inWords(one.waitingMean).padStart(10)}  works ${inWords(one.processingMean).padStart(10)}  ${money(one.costTotal)}`,
      ),
  ];
  if (against)
    for (const { figure, difference, share, ci95, isMoreThanChance } of compared(result, against)) {
      const amount = figure === "cost" ? money : inWords;
      const sure =
        isMoreThanChance === null
          ? "one replication tells no chance"
          : isMoreThanChance
            ? "more than chance"
            : "may be chance";
      lines.push(
        `${figure}: ${amount(difference)}${share === null ? "" : ` (${percent(share)})`}, 95 %: ${amount(ci95[0])} to ${amount(ci95[1])}; ${sure}`,
      );
    }
  for (const { value, forecast } of points ?? [])
    lines.push(
      `${value}: ${inWords(forecast.cycleTime.mean)}, 9 of 10 within ${inWords(forecast.cycleTime.p90)}, ${money(forecast.cost.mean)}`,
    );
  return `${lines.join("\n")}\n`;
}
