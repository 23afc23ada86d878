/** Why the server refuses something, in German, by its English code. */
export const refusals = {
  "{0} is not in this workspace any more.": "{0} ist nicht mehr in diesem Arbeitsbereich.",
  "This process": "Dieser Prozess",
  "This version": "Diese Version",
  "The description of this process": "Die Beschreibung dieses Prozesses",
  "The rule “{0}”": "Die Regel „{0}“",
  "This thread": "Dieses Gespräch",
  "This contribution": "Dieser Beitrag",
  "This member": "Dieses Mitglied",
  "One of these members": "Eines dieser Mitglieder",
  "The as-is of this process": "Das Ist dieses Prozesses",
  "This file of decisions": "Diese Datei mit Entscheidungen",
  "This entry": "Dieser Eintrag",
  "One of these entries": "Einer dieser Einträge",
  "This log": "Dieses Protokoll",
  "This walk": "Dieser Durchlauf",
  "This page": "Diese Seite",
  "This file": "Diese Datei",
  "This area": "Dieser Bereich",
  "One of these areas": "Einer dieser Bereiche",
  "This build copy": "Diese Baukopie",
  "This package": "Dieses Paket",
  "This {0}": "Dies ({0})",
  "Revision {0}": "Stand {0}",
  "This revision": "Dieser Stand",
  "This link": "Dieser Link",
  "This case": "Dieser Fall",
  "This key": "Dieser Schlüssel",
  "This run": "Dieser Lauf",
  "This alert": "Diese Meldung",
  "This work": "Diese Arbeit",
  "This review": "Diese Durchsicht",
  lens: "Linse",
  lenses: "Linsen",
  template: "Vorlage",
  templates: "Vorlagen",
  "{0} is larger than the {1} MB that are taken. Send a smaller one.":
    "{0}: größer als die {1} MB, die genommen werden. Senden Sie etwas Kleineres.",
  "The request": "Die Anfrage",
  "the request": "der Anfrage",
  "The file": "Die Datei",
  "The log": "Das Protokoll",
  "The backup": "Die Sicherung",
  "The password": "Das Passwort",
  "The request is not valid JSON.": "Die Anfrage ist kein gültiges JSON.",
  "This is answered for the content type application/json only.":
    "Das wird nur für den Inhaltstyp application/json beantwortet.",
  "There is nothing here.": "Hier ist nichts.",
  "This needs a key that is not withdrawn: Authorization: Bearer KEY.":
    "Das braucht einen Schlüssel, der nicht entzogen ist: Authorization: Bearer SCHLÜSSEL.",
  "The description was changed elsewhere since you opened it. Take that text, or keep yours.":
    "Die Beschreibung wurde anderswo geändert, seit Sie sie geöffnet haben. Nehmen Sie jenen Text, oder behalten Sie Ihren.",
  "Nothing was built. {0}": "Nichts wurde gebaut. {0}",
  "This finding is no longer there; the model has changed meanwhile.":
    "Dieser Befund ist nicht mehr da; das Modell hat sich inzwischen geändert.",
  "1 error is open. Mend it, or accept it with a reason; then sign.":
    "1 Fehler ist offen. Beheben Sie ihn, oder nehmen Sie ihn mit Begründung hin; dann zeichnen Sie.",
  "{0} errors are open. Mend them, or accept each with a reason; then sign.":
    "{0} Fehler sind offen. Beheben Sie sie, oder nehmen Sie jeden mit Begründung hin; dann zeichnen Sie.",
  "This thread has {0} contributions. Begin another one.": "Dieses Gespräch hat {0} Beiträge. Beginnen Sie ein neues.",
  "Only who said something can say it otherwise. Answer it instead.":
    "Nur wer etwas gesagt hat, kann es anders sagen. Antworten Sie stattdessen.",
  "Only who began a thread can delete it. Close it instead.":
    "Nur wer ein Gespräch begonnen hat, kann es löschen. Erledigen Sie es stattdessen.",
  "This version is the as-is already. Adopt one of its to-bes.":
    "Diese Version ist schon das Ist. Übernehmen Sie eines ihrer Solls.",
  "It cannot be read.": "Es kann nicht gelesen werden.",
  "Line {0}, column {1}: ": "Zeile {0}, Spalte {1}: ",
  "{0}{1} Nothing was kept.": "{0}{1} Nichts wurde behalten.",
  "{0}: {1}{2}": "{0}: {1}{2}",
  "{0}: {1}": "{0}: {1}",
  "{0} (line {1}, column {2})": "{0} (Zeile {1}, Spalte {2})",
  "These decisions were changed elsewhere since you opened them. Take what was written there, or keep yours.":
    "Diese Entscheidungen wurden anderswo geändert, seit Sie sie geöffnet haben. Nehmen Sie, was dort geschrieben wurde, oder behalten Sie Ihres.",
  "A unit cannot be part of itself, or of a unit that is part of it.":
    "Eine Einheit kann nicht Teil ihrer selbst sein, oder einer Einheit, die Teil von ihr ist.",
  "A {0} and a {1} are two things; only two of a kind can be one.":
    "Verschiedene Arten ({0}, {1}): Nur zwei derselben Art können eines sein.",
  role: "Rolle",
  unit: "Organisationseinheit",
  system: "System",
  document: "Dokument",
  term: "Fachbegriff",
  "{0} (and {1} more) Nothing was taken over.": "{0} (und {1} weitere) Nichts wurde übernommen.",
  "{0} Nothing was taken over.": "{0} Nichts wurde übernommen.",
  "This was done too long ago to be taken back.": "Das ist zu lange her, um es zurückzunehmen.",
  "This was no merge of the directory.": "Das war keine Gleichsetzung im Verzeichnis.",
  "This cannot be taken back.": "Das kann nicht zurückgenommen werden.",
  "This log is larger than the {0} MB that are kept.":
    "Dieses Protokoll ist größer als die {0} MB, die behalten werden.",
  "{0} is of a kind that is not kept here. Kept are {1}; for others, add a link.":
    "{0} ist von einer Art, die hier nicht behalten wird. Behalten werden {1}; für andere setzen Sie einen Verweis.",
  "{0} is empty.": "{0} ist leer.",
  "{0} is larger than the 10 MB a file may have. Add a link to it.":
    "{0} ist größer als die 10 MB, die eine Datei haben darf. Setzen Sie einen Verweis darauf.",
  "{0} was not opened: it was cancelled.": "{0} wurde nicht geöffnet: Es wurde abgebrochen.",
  "{0} was not made: it was cancelled.": "{0} wurde nicht angelegt: Es wurde abgebrochen.",
  "There is no process here yet. Make one, then its handbook.":
    "Hier ist noch kein Prozess. Legen Sie einen an, dann sein Handbuch.",
  "A handbook holds {0} processes at most; here are {1}. Choose an area.":
    "Ein Handbuch fasst höchstens {0} Prozesse; hier sind {1}. Wählen Sie einen Bereich.",
  "None of these versions can be read.": "Keine dieser Versionen kann gelesen werden.",
  "A repository needs the name of a branch.": "Ein Repository braucht den Namen eines Zweigs.",
  "A version is tied to this file already. Two models in one file would overwrite each other.":
    "Eine Version ist schon an diese Datei gebunden. Zwei Modelle in einer Datei würden einander überschreiben.",
  "The build copy has changes that the model has not. Take them over first, so that nothing of them is lost.":
    "Die Baukopie hat Änderungen, die das Modell nicht hat. Übernehmen Sie sie zuerst, damit nichts verloren geht.",
  "The file is not there.": "Die Datei ist nicht da.",
  "The file cannot be read.": "Die Datei kann nicht gelesen werden.",
  "Both sides changed the same thing. Say for each which one holds.":
    "Beide Seiten haben dasselbe geändert. Sagen Sie jeweils, was gilt.",
  "What was taken over would not be a model.": "Was übernommen würde, wäre kein Modell.",
  "The model changed just now. Nothing was taken over; look again.":
    "Das Modell hat sich eben geändert. Nichts wurde übernommen; sehen Sie noch einmal.",
  "Only the demo's repository has a simulated developer.":
    "Nur das Repository der Vorführung hat einen simulierten Entwickler.",
  "There is no file yet that a developer could work on. Send it first.":
    "Noch gibt es keine Datei, an der ein Entwickler arbeiten könnte. Senden Sie sie zuerst.",
  "The developer cannot read the file either.": "Auch der Entwickler kann die Datei nicht lesen.",
  "The folder {0} is not there.": "Den Ordner {0} gibt es nicht.",
  "There is no folder {0} in {1}.": "In {1} gibt es keinen Ordner {0}.",
  "{0} leads out of {1}.": "{0} führt aus {1} hinaus.",
  "{0} is too large for a model.": "{0} ist zu groß für ein Modell.",
  "There is no git program on this machine, so no repository can be reached.":
    "Auf diesem Rechner gibt es kein Programm git; kein Repository ist erreichbar.",
  "The repository {0} cannot be reached: {1}": "Das Repository {0} ist nicht erreichbar: {1}",
  "{0} cannot be read from {1}: {2}": "{0} kann nicht aus {1} gelesen werden: {2}",
  "Nothing was pushed to {0}: {1}": "Nichts wurde nach {0} geschickt: {1}",
  "1 error is open. Mend it in Check, or accept it with a reason; then {0}.":
    "1 Fehler ist offen. Beheben Sie ihn in der Prüfung, oder nehmen Sie ihn mit Begründung hin; dann: {0}.",
  "{0} errors are open. Mend them in Check, or accept each with a reason; then {1}.":
    "{0} Fehler sind offen. Beheben Sie sie in der Prüfung, oder nehmen Sie jeden mit Begründung hin; dann: {1}.",
  "hand off": "abgeben",
  send: "senden",
  "start up": "starten",
  "The build copy changed just now. Nothing was written; look at it again.":
    "Die Baukopie hat sich eben geändert. Nichts wurde geschrieben; sehen Sie sie noch einmal an.",
  "This place is not among those that may be reached. Whoever runs the server can allow it in LANE_BUILDS.":
    "Dieser Ort gehört nicht zu den erreichbaren. Wer den Server betreibt, kann ihn in LANE_BUILDS erlauben.",
  "An area cannot be moved into itself or into an area it holds.":
    "Ein Bereich kann nicht in sich selbst oder in einen Bereich in ihm verschoben werden.",
  "A process has one as-is. Delete the process, or adopt a to-be in its place.":
    "Ein Prozess hat ein Ist. Löschen Sie den Prozess, oder übernehmen Sie ein Soll an seiner Stelle.",
  "The entry could not be changed.": "Der Eintrag konnte nicht geändert werden.",
  "The workspace was replaced by a backup since this window opened it. What you see is from before; it is opened anew.":
    "Der Arbeitsbereich wurde durch eine Sicherung ersetzt, seit dieses Fenster ihn geöffnet hat. Was Sie sehen, ist von vorher; es wird neu geöffnet.",
  "There are {0} {1}. Delete one that is not used any more.":
    "Es gibt schon {0} ({1}). Löschen Sie etwas nicht mehr Benutztes.",
  "Somebody has changed this {0} since. Look at it as it is now, then change it again.":
    "Inzwischen hat jemand dies geändert ({0}). Sehen Sie den jetzigen Stand an, dann ändern Sie noch einmal.",
  "Revision {0} cannot be read ({1}). Choose an older one, or restore a backup.":
    "Stand {0} kann nicht gelesen werden ({1}). Wählen Sie einen älteren, oder spielen Sie eine Sicherung zurück.",
  "{0} may not {1} this {2}. Ask somebody who owns the workspace.":
    "{0} darf dies nicht ({2}: {1}). Fragen Sie jemanden, dem der Arbeitsbereich gehört.",
  see: "sehen",
  change: "ändern",
  "make, move or delete": "anlegen, verschieben oder löschen",
  judge: "beurteilen",
  "comment on": "kommentieren",
  run: "betreiben",
  "work on": "bearbeiten",
  administer: "verwalten",
  workspace: "Arbeitsbereich",
  directory: "Verzeichnis",
  area: "Bereich",
  version: "Version",
  "The id {0} is in use already. Choose another one.": "Die Kennung {0} ist schon in Gebrauch. Wählen Sie eine andere.",
  "It was cancelled; nothing was kept.": "Es wurde abgebrochen; nichts wurde behalten.",
  "This took longer than {0} seconds and was ended. Nothing was changed. A smaller or less tangled model takes less.":
    "Das dauerte länger als {0} Sekunden und wurde beendet. Nichts wurde geändert. Ein kleineres oder weniger verwickeltes Modell braucht weniger.",
  "This wants more memory than there is for one piece of work. Nothing was changed. Take a smaller model or file.":
    "Das braucht mehr Speicher, als es für eine Arbeit gibt. Nichts wurde geändert. Nehmen Sie ein kleineres Modell oder eine kleinere Datei.",
  "The server is busy with other long work. Try again in a moment.":
    "Der Server ist mit anderer langer Arbeit beschäftigt. Versuchen Sie es gleich noch einmal.",
  "There is {0} in {1}, which cannot be kept. Take it out, then try again.":
    "In {1} ist {0}, was nicht behalten werden kann. Nehmen Sie es heraus, dann versuchen Sie es noch einmal.",
  "a NUL character": "ein NUL-Zeichen",
  "half of a character": "ein halbes Zeichen",
  "more levels than a model has": "mehr Ebenen, als ein Modell hat",
  "{0} is used in {1}: {2}. Take it off there first, or make it the same as another.":
    "{0} wird an {1} benutzt: {2}. Nehmen Sie es dort zuerst weg, oder setzen Sie es mit einem anderen gleich.",
  "1 place": "1 Stelle",
  "{0} places": "{0} Stellen",
  "{0} and others": "{0} und andere",
  "This case is over.": "Dieser Fall ist vorbei.",
  "This case is over already.": "Dieser Fall ist schon vorbei.",
  "Only a step can be left out. Lead this one on, or mend its data.":
    "Nur ein Schritt kann ausgelassen werden. Führen Sie dies weiter, oder berichtigen Sie die Daten.",
  "This is no event: it is work, which is completed in the worklist.":
    "Das ist kein Ereignis: Es ist Arbeit; sie wird in der Arbeitsliste erledigt.",
  "This run has ended. Nothing more is done in it.": "Dieser Lauf ist beendet. Darin wird nichts mehr getan.",
  "This run has ended. Start up another one.": "Dieser Lauf ist beendet. Starten Sie einen anderen.",
  "This run has ended. Its clock stands.": "Dieser Lauf ist beendet. Seine Uhr steht.",
  "This run has ended. Nobody works in it any more.": "Dieser Lauf ist beendet. Niemand arbeitet mehr darin.",
  "This run has ended. No case begins in it any more.": "Dieser Lauf ist beendet. Kein Fall beginnt mehr darin.",
  "This key was made already; it is shown only once. Make another one.":
    "Dieser Schlüssel ist schon angelegt; er wird nur einmal gezeigt. Legen Sie einen anderen an.",
  "There is nothing of this method and path. See openapi.json.":
    "Zu dieser Methode und diesem Pfad gibt es nichts. Siehe openapi.json.",
  "This run has taken a newer package meanwhile. Look at it again.":
    "Dieser Lauf hat inzwischen ein neueres Paket. Sehen Sie ihn noch einmal an.",
  "Nothing newer was handed off. Hand the version off first.":
    "Nichts Neueres wurde abgegeben. Geben Sie zuerst die Version ab.",
  "The package that was handed off cannot be read. Hand off once more.":
    "Das abgegebene Paket kann nicht gelesen werden. Geben Sie noch einmal ab.",
  "There is no process with steps in this version.": "In dieser Version ist kein Prozess mit Schritten.",
  "Nothing comes by itself: every case waits for somebody, or is over.":
    "Nichts kommt von selbst: Jeder Fall wartet auf jemanden oder ist vorbei.",
  "A run's clock does not go back: what has happened has happened.":
    "Die Uhr eines Laufs geht nicht zurück: Was geschehen ist, ist geschehen.",
  "No service answers this step.": "Kein Dienst beantwortet diesen Schritt.",
  "No case waits for “{0}”, and none begins with it.": "Kein Fall wartet auf „{0}“, und keiner beginnt damit.",
  "The process does not begin there. Choose one of its start events.":
    "Der Prozess beginnt dort nicht. Wählen Sie eines seiner Startereignisse.",
  "This is not waited for any more: it was done, or the case has gone on.":
    "Darauf wird nicht mehr gewartet: Es ist getan, oder der Fall ist weitergegangen.",
  "Only work has a date until which it should be done.": "Nur Arbeit hat ein Datum, bis zu dem sie getan sein soll.",
  "Somebody else has taken this on. Ask them to hand it over.":
    "Jemand anders hat dies übernommen. Bitten Sie darum, es weiterzugeben.",
  "This case is suspended. Nothing is done in it now.": "Dieser Fall ist ausgesetzt. Jetzt wird nichts darin getan.",
  "This is not work any more: it is an incident that a supervisor has to clear up.":
    "Das ist keine Arbeit mehr: Es ist eine Störung, die die Aufsicht klären muss.",
  "This member has no e-mail address to sign in with. Give one first.":
    "Dieses Mitglied hat keine E-Mail-Adresse zum Anmelden. Geben Sie zuerst eine an.",
  "This is the only owner; without one nobody could give rights any more. Make somebody else an owner first.":
    "Nur diesem Mitglied gehört der Arbeitsbereich; ohne könnte niemand mehr Rechte geben. Geben Sie ihn zuerst jemand anderem.",
  "An area is named twice. Give one seat in each area.":
    "Ein Bereich ist zweimal genannt. Geben Sie in jedem Bereich einen Platz.",
  "Another member signs in with this address. Each has one of their own.":
    "Ein anderes Mitglied meldet sich mit dieser Adresse an. Jedes hat eine eigene.",
  "Nobody takes their own access away. Ask another owner.":
    "Niemand nimmt sich selbst den Zugang. Fragen Sie jemand anderen, dem der Arbeitsbereich gehört.",
  "Too many sign in at this moment. Try again in a few seconds.":
    "Im Moment melden sich zu viele an. Versuchen Sie es in ein paar Sekunden noch einmal.",
  "An address and a password are needed.": "Adresse und Passwort sind nötig.",
  "This address and password do not go together.": "Diese Adresse und dieses Passwort gehören nicht zusammen.",
  "Too many wrong passwords in a row. The next one is looked at in {0}; an owner can send a new link.":
    "Zu viele falsche Passwörter in Folge. Das nächste wird in {0} angesehen; wem der Arbeitsbereich gehört, kann einen neuen Link senden.",
  "1 second": "1 Sekunde",
  "{0} seconds": "{0} Sekunden",
  "This is not the code that was shown when the server was started.":
    "Das ist nicht der Code, der beim Start des Servers gezeigt wurde.",
  "This workspace has an owner already. Sign in, or ask them for a link.":
    "Dieser Arbeitsbereich gehört schon jemandem. Melden Sie sich an, oder bitten Sie dort um einen Link.",
  "This link opens nothing any more: it was used, it is older than three days, or another one was made. Ask an owner for a new one.":
    "Dieser Link öffnet nichts mehr: Er wurde benutzt, ist älter als drei Tage, oder ein anderer wurde gemacht. Bitten Sie um einen neuen.",
  "This member has no access any more. Ask an owner.":
    "Dieses Mitglied hat keinen Zugang mehr. Fragen Sie, wem der Arbeitsbereich gehört.",
  "The password until now is another one.": "Das bisherige Passwort ist ein anderes.",
  "You are not signed in, or not any more. Sign in, then go on.":
    "Sie sind nicht angemeldet, oder nicht mehr. Melden Sie sich an, dann geht es weiter.",
  "The provider that vouches for members does not answer. Sign in with a password, or try again later.":
    "Der Anbieter, der für Mitglieder bürgt, antwortet nicht. Melden Sie sich mit einem Passwort an, oder versuchen Sie es später.",
  "This review was withdrawn. Ask for another one.": "Diese Durchsicht wurde zurückgezogen. Bitten Sie um eine neue.",
  "Only who was asked can answer a review. Write a comment instead.":
    "Nur wer gefragt wurde, kann auf eine Durchsicht antworten. Schreiben Sie stattdessen einen Kommentar.",
  "Only who asked for a review can withdraw it.": "Nur wer um eine Durchsicht gebeten hat, kann sie zurückziehen.",
  "Somebody else has changed the same thing since. Both changes are shown to you, to take theirs or keep yours.":
    "Inzwischen hat jemand anders dasselbe geändert. Beide Änderungen werden Ihnen gezeigt, damit Sie die andere nehmen oder Ihre behalten.",
  "This backup cannot be restored: {0}. Nothing was changed. Take another copy of it, or an older backup.":
    "Diese Sicherung kann nicht zurückgespielt werden: {0}. Nichts wurde geändert. Nehmen Sie eine andere Kopie davon, oder eine ältere Sicherung.",
  "This file is not a Lucid Lane backup, or it is damaged: {0}. Nothing was changed. Take another copy of it, or an older backup.":
    "Diese Datei ist keine Sicherung von Lucid Lane, oder sie ist beschädigt: {0}. Nichts wurde geändert. Nehmen Sie eine andere Kopie davon, oder eine ältere Sicherung.",
  "Backups of up to 512 MB can be read. Nothing was changed.":
    "Gelesen werden Sicherungen bis 512 MB. Nichts wurde geändert.",
  "Something went wrong on the server. What you did is kept here; try again.":
    "Auf dem Server ist etwas schiefgegangen. Was Sie getan haben, ist hier gespeichert; versuchen Sie es noch einmal.",
  "A value in this request is larger than what can be kept. Make it smaller, then try again.":
    "Ein Wert in dieser Anfrage ist größer, als behalten werden kann. Machen Sie ihn kleiner, dann versuchen Sie es noch einmal.",
  "Somebody else is changing the same thing just now, and it takes long. Try again in a moment.":
    "Jemand anders ändert gerade dasselbe, und es dauert. Versuchen Sie es gleich noch einmal.",
  "A text holds a character that cannot be kept (a NUL). Take it out, then try again.":
    "Ein Text enthält ein Zeichen, das nicht behalten werden kann (ein NUL). Nehmen Sie es heraus, dann versuchen Sie es noch einmal.",
  "A text holds characters that are not valid Unicode. Take them out, then try again.":
    "Ein Text enthält Zeichen, die kein gültiges Unicode sind. Nehmen Sie sie heraus, dann versuchen Sie es noch einmal.",
};
