import { counted } from "@/core/model";
import type { Part } from "../translated";

/** The words of the directory, in German. */
export const directory: Part<"directory"> = {
  directory: {
    title: "Verzeichnis",
    made: (name) => `„${name}“ eintragen`,
    changed: (name) => `„${name}“ ändern`,
    kinds: {
      role: "Rollen",
      unit: "Organisationseinheiten",
      system: "IT-Systeme",
      document: "Dokumente",
      term: "Fachbegriffe",
    },
    one: {
      role: "Rolle",
      unit: "Organisationseinheit",
      system: "IT-System",
      document: "Dokument",
      term: "Fachbegriff",
    },
    add: (kind) => `Neu: ${kind}`,
    name: "Name",
    description: "Beschreibung",
    unit: "Teil von",
    used: "Benutzt",
    times: (count) => (count === 0 ? "nicht benutzt" : counted(count, "Stelle", "Stellen")),
    whereUsed: "Wo es benutzt wird",
    notUsed: "Noch benutzt es nichts. Weisen Sie es in der Ablage eines Schrittes zu.",
    remove: "Löschen",
    empty: (kind) =>
      `Noch nichts eingetragen (${kind}). Benennen Sie Dinge hier einmal, und verwenden Sie sie überall.`,
    hue: "Farbton",
    choose: "Wählen Sie einen Eintrag, um ihn zu sehen und zu ändern.",
    organisation: "Die Organisation",
    mostUsed: "Am meisten benutzt, in Stellen",
    usedNowhere: "Nirgends benutzt",
    usedTimes: (kind, name, count) =>
      count === 0
        ? `Nirgends benutzt: ${kind} ${name}`
        : `Benutzt an ${counted(count, "Stelle", "Stellen")}: ${kind} ${name}`,
    andMore: (count) => `und ${count} weitere`,
    renamed: (count) => `In ${counted(count, "Version", "Versionen")} umbenannt.`,
    filter: "Filtern",
    none: "keine",
    figures: { headcount: "Personen", costPerHour: "Kosten je Stunde, EUR", hoursPerWeek: "Stunden je Woche" },
    noNumber: (most) => `Eine Zahl von 0 bis ${most}.`,
    people: (count) => counted(count, "Person", "Personen"),
    file: "Einlesen, ausgeben",
    import: "Aus CSV oder JSON einlesen …",
    export: { csv: "Als CSV ausgeben", json: "Als JSON ausgeben" },
    imported: (made, known) => `${made} neu, ${known} schon bekannt und auf den neuesten Stand gebracht.`,
    merging: (from, into) => `„${from}“ mit „${into}“ gleichsetzen`,
    importing: (file) => `das Verzeichnis aus ${file} übernehmen`,
    merge: "Dasselbe wie",
    mergeNone: "wählen, was bleibt",
    merged: (from, into, versions) =>
      `${from} ist jetzt ${into}${versions > 0 ? `, auch in ${counted(versions, "Version", "Versionen")}` : ""}.`,
    similar: "Zwei Schreibweisen für dasselbe?",
    maybeOne: (one, other) => `${one} und ${other}`,
    keep: (name) => `${name} behalten`,
    moreSimilar: (count) => `und ${count} weitere`,
  },
};
