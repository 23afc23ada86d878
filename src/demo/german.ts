import { describing } from "@/core/capture";
import type { Drawing } from "./drawing";

/** What the connection of a plant is called in German, by the ids of its elements. */
const names: { readonly [id: string]: string } = {
  "rooftop-solar-connection": "Anschluss einer Solaranlage",
  cooperative: "Stromgenossenschaft Quillmere",
  household: "Haushalt",
  installer: "Installateur",
  "lane-front-desk": "Kundenschalter",
  "lane-engineer": "Netzingenieurin",
  "lane-crew": "Montagetrupp",
  "lane-billing": "Abrechnung",
  "application-received": "Antrag eingegangen",
  register: "Antrag erfassen",
  complete: "Antrag vollständig?",
  "request-papers": "Fehlende Unterlagen anfordern",
  "await-papers": "Fehlende Unterlagen empfangen",
  "papers-late": "10 Arbeitstage",
  lapsed: "Antrag verfallen",
  "check-documents": "Unterlagen prüfen",
  "check-capacity": "Netzkapazität prüfen",
  capacity: "Platz auf dem Abgang?",
  reject: "Ablehnung begründen",
  rejected: "Antrag abgelehnt",
  approve: "Anschlussplan freigeben",
  needed: "Was ist vor Ort nötig?",
  "change-meter": "Zähler tauschen",
  "upgrade-fuse": "Sicherung verstärken",
  "book-visit": "Besuch telefonisch vereinbaren",
  inspect: "Vor Ort abnehmen",
  "crew-arrives": "Trupp vor Ort",
  "check-wiring": "Verkabelung und Zähler prüfen",
  "wiring-safe": "Verkabelung sicher?",
  "note-defects": "Mängel auflisten",
  inspected: "Anlage abgenommen",
  "defects-noted": "Mängel notiert",
  "switch-on": "Einschalten und prüfen",
  "set-tariff": "Einspeisetarif festlegen",
  connected: "Anlage angeschlossen",
  "complete-to-check-documents": "ja",
  "complete-to-request-papers": "nein",
  "capacity-to-approve": "ja",
  "capacity-to-reject": "nein",
  "needed-to-site-ready": "nichts",
  "needed-to-change-meter": "alter Zähler",
  "needed-to-upgrade-fuse": "Sicherung unter 35 A",
  "wiring-safe-to-inspected": "ja",
  "wiring-safe-to-note-defects": "nein",
  "household-to-application-received": "Antrag",
  "installer-to-inspect": "Prüfprotokoll",
  "connected-to-installer": "Tarifmitteilung",
};

/** What the data and documents are called, by what they are called in English. */
const things: { readonly [name: string]: string } = {
  "Connection application": "Anschlussantrag",
  "Single-line drawing": "Einlinienplan",
  "Network study note": "Netzgutachten",
  "Connection agreement": "Anschlussvertrag",
  "Visit report": "Besuchsbericht",
  plant: "Anlage",
  "missing papers": "fehlende Unterlagen",
  "load after connection": "Last nach dem Anschluss",
  "feeder limit": "Grenze des Abgangs",
  meter: "Zähler",
  visit: "Besuch",
  defects: "Mängel",
  "feed-in tariff": "Einspeisetarif",
};

/** How the work is done, by the ids of its steps. */
const instructions: { readonly [id: string]: string } = {
  register: "Eine Fallnummer vergeben, das Papier einscannen, dem Haushalt danken.",
  "request-papers": "Alle fehlenden Unterlagen in einem Brief aufführen.",
  "check-documents": "Jedes Papier mit der Liste für die Anlagengröße vergleichen und notieren, was veraltet ist.",
  "check-capacity":
    "Den Abgang in der Netzkarte öffnen. Die Nennleistung der Anlage zur reservierten Last zählen; über 80 % der Grenze ein Gutachten verlangen.",
  approve: "Den Einlinienplan mit dem Gutachten vergleichen, dann den Vertrag unterschreiben.",
  inspect: "Der Trupp prüft die Anlage, bevor sie eingeschaltet wird.",
  "set-tariff": "Der Tarif folgt aus der Nennleistung und dem Tag der Einschaltung.",
};

/** Gives the process its texts in German, as a translator would. */
export function tellInGerman(draw: Drawing): void {
  for (const { id, type, name = "" } of draw.model.elements) {
    const isThing = /^(?:dataObjectReference|property)$/.test(type);
    const told = names[id] ?? (isThing ? things[name] : undefined);
    if (told !== undefined) draw.do({ type: "nameIn", id, language: "de", name: told });
  }
  for (const [id, words] of Object.entries(instructions)) draw.do(describing(id, "de", words));
}
