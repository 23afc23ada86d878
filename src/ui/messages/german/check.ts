import { counted } from "@/core/model";
import type { Part } from "../translated";

/** The beginning of a sentence, to whole words. */
const begun = (words: string) => (words.length <= 70 ? words : `${words.slice(0, 70).replace(/\s+\S*$/, "")} …`);
const steps = (count: number) => counted(count, "Schritt", "Schritten");

/** The words of checking and walking, in German. */
export const check: Part<"check" | "walk" | "counterpart"> = {
  check: {
    decisions: {
      title: "Entscheidungen",
      pass: (passed, all) => `${passed} von ${counted(all, "Testfall besteht", "Testfällen bestehen")}`,
      fails: (given, expected, got) => `${given}: soll ${expected} ergeben, ergibt ${got}`,
    },
    title: (revision) => `Urteil über ${revision}`,
    drawing: "Die Zeichnung mit dem, was gefunden wurde",
    lookAt: "In der Zeichnung zeigen",
    head: "den jetzigen Stand",
    headAfter: (revision) => `den jetzigen Stand, nach Stand ${revision}`,
    atRevision: (revision) => `Stand ${revision}`,
    acceptedNow: (finding) => `hinnehmen: ${begun(finding)}`,
    withdrawnNow: (finding) => `nicht mehr hinnehmen: ${begun(finding)}`,
    checkedForNow: (profile) => `prüfen für ${profile}`,
    ruleChanged: (rule) => `ändern, was die Regel „${rule}“ zählt`,
    clean: (profile, isForHandOff) =>
      isForHandOff
        ? "Kein Fehler ist offen. Dies kann abgegeben werden."
        : `Kein Fehler ist offen für ${profile}. Die Abgabe verlangt mehr; prüfen Sie vorher dafür.`,
    errors: (count) => `${count} Fehler ${count === 1 ? "ist" : "sind"} zu beheben, bevor dies abgegeben werden kann.`,
    severity: { error: "Fehler", warning: "Warnungen", advice: "Hinweise" },
    one: { error: "Fehler", warning: "Warnung", advice: "Hinweis" },
    groups: {
      connections: "Verbindungen",
      completeness: "Vollständigkeit",
      names: "Namen",
      layout: "Anordnung",
      guidelines: "Leitlinien",
      behaviour: "Verhalten",
      automation: "Reif für die Automatisierung",
    },
    profiles: { draft: "einen Entwurf", review: "die Durchsicht", "hand-off": "die Abgabe" },
    checkedFor: "geprüft für",
    rulesOpen: "Regeln",
    rule: "Was verlangt wird",
    rulesAsk:
      "Ein Profil verlangt, was sein Zweck braucht. Was hier geändert wird, gilt für alle Prozesse des Arbeitsbereichs.",
    filterRules: "Regeln filtern",
    levels: { error: "Fehler", warning: "Warnung", advice: "Hinweis", off: "nicht verlangt" },
    asShipped: (level) => `Von Haus aus: ${level}`,
    looking: "Das Modell wird angesehen …",
    sign: "Das Urteil zeichnen",
    signedNow: (revision) => `Als Stand ${revision} gezeichnet.`,
    signed: (member, date, revision, profile, holds) =>
      holds
        ? `Gezeichnet von ${member} am ${date} für ${profile}, als Stand ${revision}.`
        : `Die Zeichnung durch ${member} (${date}, Stand ${revision}) ist hinfällig: Der Prozess hat sich seitdem geändert.`,
    unsigned: "Noch hat es niemand gezeichnet.",
    preview: "Vorschau",
    asItWouldBe: "Wie es wäre",
    leave: "Lassen, wie es ist",
    cannotRepair: "So, wie es steht, geht das nicht.",
    chooseRepair: (count) => `Beheben: auf einem von ${count} Wegen`,
    whichRepair: "Wie es behoben werden soll",
    apply: "Die Behebung anwenden",
    helps: (gone, added) =>
      `Es hilft: ${counted(gone, "Befund geht", "Befunde gehen")}${added > 0 ? `, ${counted(added, "neuer kommt", "neue kommen")}` : ", kein neuer kommt"}.`,
    helpsNot: "Es hilft nicht: Dasselbe würde weiter gefunden.",
    repaired: "Es ist behoben. Strg+Z nimmt es zurück.",
    measures: "Wie schwer es zu verstehen ist",
    measure: {
      nodes: "Knoten",
      degree: "Meiste Flüsse an einem Gateway",
      starts: "Startereignisse",
      ends: "Endereignisse",
      structured: "Aus Blöcken",
      inclusive: "Inklusive Gateways",
      verbObject: "Verb und Objekt",
      complexity: "Komplexität des Ablaufs",
    },
    atMost: (value) => `höchstens ${value}`,
    atLeast: (value) => `mindestens ${value}`,
    beyond: "(nicht eingehalten)",
    measuresSource:
      "Grenzen nach den sieben Leitlinien der Prozessmodellierung (Mendling, Reijers, van der Aalst, 2010); Komplexität nach Cardoso (2005).",
    all: "Alle",
    show: "Zeigen",
    showRun: "Den Ablauf zeigen",
    run: (count) => `Ein Ablauf mit ${steps(count)}, der dorthin führt`,
    hideRun: "verbergen",
    accept: "Hinnehmen",
    acceptAsk: "Warum wird dieser Befund hingenommen? Der Grund, Ihr Name und das Datum kommen in den Bericht.",
    accepted: "Hingenommen",
    withdraw: "Zurückziehen",
    reason: "Grund",
    none: "In dieser Gruppe wurde nichts gefunden.",
    nothing: "Noch gibt es nichts zu prüfen. Zeichnen Sie den ersten Schritt, dann erscheinen hier Befunde.",
    rules: (count) => `${count} Regeln`,
    filter: "Befunde filtern",
  },
  walk: {
    decided: ({ result, rules }) =>
      `${typeof result === "string" ? result : JSON.stringify(result)}${rules.length > 0 ? ` (Regel ${rules.join(", ")})` : ""}`,
    keptNow: (what) => `einen Durchlauf merken: ${what}`,
    changedNow: (name) => `den gemerkten Durchlauf „${name}“ ändern`,
    droppedNow: (name) => `den gemerkten Durchlauf „${name}“ aufgeben`,
    nothing:
      "Noch gibt es nichts durchzuspielen. Zeichnen Sie ein Startereignis und die ersten Schritte, dann kann hier ein Fall hindurchgehen.",
    drawing: "Die Seite, auf der der Fall ist",
    controls: "Wie der Fall geht",
    anew: "Von vorn",
    back: "Zurück",
    step: "Weiter",
    play: "Spielen",
    pause: "Pause",
    pace: "Wie schnell",
    paces: { slow: "langsam", usual: "im Schritt", fast: "schnell" },
    usualWay: "üblichen Weg gehen",
    together: "mit den anderen Pools",
    start: "Was den Fall auslöst",
    process: "Welcher Prozess",
    scopes: "Wo der Fall ist",
    stepOf: (at, last) => (at === last ? `Schritt ${at}.` : `Schritt ${at} von ${last}.`),
    outcome: (outcome, waits) =>
      outcome === "completed"
        ? "Der Fall ist zu seinem Ende gekommen."
        : outcome === "stuck"
          ? "Der Fall steckt fest."
          : waits
            ? "Wählen Sie, wie es weitergeht."
            : "Unterwegs.",
    now: "Wo der Fall steht",
    log: "Was geschah",
    data: "Daten des Falls",
    kept: "Gemerkte Durchläufe",
    completed: "Keine Marke ist übrig: Jeder Weg ist zu seinem Ende gekommen.",
    barred:
      "Mit diesen Daten gilt hier keine Bedingung, und es gibt keine übliche Antwort: Der Fall steckt fest. Wählen Sie selbst einen Weg, oder berichtigen Sie die Bedingungen.",
    stuck: "Nichts kann mehr geschehen, obwohl Marken übrig sind. Worauf hier gewartet wird, das kommt nie.",
    could: "Jederzeit:",
    or: "oder",
    tokens: (count) => `${count} Marken`,
    stopHere: "hier anhalten",
    noStop: "hier nicht anhalten",
    breakHint: "Ein Klick auf einen Schritt, an dem der Fall nicht ist, lässt ihn dort anhalten.",
    forHowMany: "für",
    begin: "beginnen",
    goOn: "Weiter",
    way: "weiter",
    filterLog: "Filtern",
    saveLog: "CSV",
    noLog: "Jeder Schritt wird hier notiert, während der Fall gespielt wird.",
    events: { entered: "betreten", left: "verlassen", undone: "rückgängig" },
    time: (count) => `${count}. Mal`,
    noData:
      "Keine Bedingung fragt nach Daten. Was hier geschrieben wird, entscheidet Bedingungen, die in FEEL geschrieben sind.",
    value: "offen",
    types: {
      number: "Zahl",
      text: "Text",
      yesNo: "ja oder nein",
      date: "2027-03-31",
      dateAndTime: "2027-03-31T14:30:00",
      time: "14:30:00",
      duration: "P2D, PT4H",
    },
    yes: "ja",
    no: "nein",
    dataCounts: "Ein Wert zählt ab dort, wo der Fall steht.",
    addData: "Ein weiterer Wert, mit Namen",
    keep: "Diesen Durchlauf merken",
    keepAsk:
      "Er wird nach jeder Änderung wieder gespielt und meldet, wenn er einen anderen Weg geht oder anders endet.",
    keepUnderWay:
      "Der Fall ist noch unterwegs. Von hier an wird der übliche Weg gegangen, damit der Durchlauf ein Ende hat.",
    name: "Name",
    suggest: "Durchläufe vorschlagen",
    noTests: "Ein gemerkter Durchlauf wird nach jeder Änderung des Prozesses wieder gespielt.",
    show: (name) => `„${name}“ spielen`,
    rename: "umbenennen",
    remove: "entfernen",
    more: (count) => `und ${count} weitere`,
    expectThis: "ab jetzt dies erwarten",
    verdicts: { passes: "wie erwartet", differs: "anders als erwartet", gone: "nicht mehr möglich" },
    needed: (count) =>
      count === 1
        ? "Ein Durchlauf geht alle Flüsse entlang."
        : `Mit diesen ${count} Durchläufen wird jeder Fluss mindestens einmal gegangen.`,
    mainPath: "Hauptweg",
    byWayOf: (from, to) => `Von ${from} nach ${to}`,
    suggested: (flows, outcome) =>
      `${counted(flows, "Fluss", "Flüsse")}${outcome === "completed" ? "" : outcome === "stuck" ? ", steckt fest" : ", geht ewig weiter"}`,
    missed: (flows, isKnown) => {
      const which = `${flows.slice(0, 3).join("; ")}${flows.length > 3 ? `; und ${flows.length - 3} weitere` : ""}`;
      const ways = flows.length === 1 ? "Einen Fluss" : `${flows.length} Flüsse`;
      return isKnown
        ? `${ways} geht kein Fall entlang: ${which}. Die Prüfung sagt, warum.`
        : `${ways} geht keiner dieser Durchläufe entlang: ${which}. Ein Fall kann in zu vielen Zuständen sein, um zu sagen, ob einer dorthin kommt.`;
    },
    keepAll: (count) => (count === 1 ? "Diesen Durchlauf merken" : `Diese ${count} Durchläufe merken`),
    open: "Durchlauf öffnen",
    results: (passing, all) => `${passing} von ${all} gemerkten Durchläufen gehen wie erwartet`,
  },
  counterpart: {
    of: (name) => `${name} in anderen Versionen`,
    none: (name) => `${name} ist in keiner anderen Version dieses Prozesses.`,
    noneFits: "Keine Version enthält diese Wörter.",
    elsewhere: "Anderswo",
    unlink: (version) => `Nicht dasselbe wie in ${version}`,
    lastChange: "Geändert",
    more: (count) => `${count} frühere`,
    fewer: "nur das letzte",
  },
};
