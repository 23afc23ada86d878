/** What is said of files, and of what is typed, in German, by its English code. */
export const files = {
  'The file says it is written in "{0}", which cannot be read here. Save it as UTF-8.':
    "Die Datei ist nach eigener Angabe in „{0}“ geschrieben, was hier nicht gelesen werden kann. Speichern Sie sie als UTF-8.",
  "The file is not valid {0} text. Save it as UTF-8 and open it again.":
    "Die Datei ist kein gültiger {0}-Text. Speichern Sie sie als UTF-8, und öffnen Sie sie noch einmal.",
  "This is not well-formed XML: {0}": "Das ist kein wohlgeformtes XML: {0}",
  "The file brings a document type or entities, which are not read. Remove the DOCTYPE.":
    "Die Datei bringt einen Dokumenttyp oder Entitäten mit; die werden nicht gelesen. Entfernen Sie den DOCTYPE.",
  "An element has more than {0} attributes.": "Ein Element hat mehr als {0} Attribute.",
  'The prefix "{0}" is not declared (xmlns:{1} is missing).': "Das Präfix „{0}“ ist nicht erklärt (xmlns:{1} fehlt).",
  "This is not a BPMN 2.0 file: {0}.": "Das ist keine BPMN-2.0-Datei: {0}.",
  "The file is {0} MB; files of up to {1} MB are read.":
    "Die Datei ist {0} MB groß; gelesen werden Dateien bis {1} MB.",
  "The file is {0} MB; up to {1} MB are read.": "Die Datei ist {0} MB groß; gelesen werden bis {1} MB.",
  "The file is empty.": "Die Datei ist leer.",
  "The file is nested more than {0} levels deep.": "Die Datei ist tiefer als {0} Ebenen geschachtelt.",
  "The file nests more than {0} levels deep.": "Die Datei ist tiefer als {0} Ebenen geschachtelt.",
  "The file has more than {0} elements.": "Die Datei hat mehr als {0} Elemente.",
  "The file brings a document type or entities, which are not read.":
    "Die Datei bringt einen Dokumenttyp oder Entitäten mit; die werden nicht gelesen.",
  "The BPMN text on the clipboard holds no drawn steps. Import it as a file on Home; it is laid out there.":
    "Der BPMN-Text der Zwischenablage enthält keine gezeichneten Schritte. Öffnen Sie ihn auf der Startseite als Datei; dort wird er angeordnet.",
  "This is not valid JSON.": "Das ist kein gültiges JSON.",
  'This JSON is no directory: it needs "format": "{0}" and "entries".':
    'Dieses JSON ist kein Verzeichnis: Es braucht "format": "{0}" und "entries".',
  "The first row has to name the columns; Kind and Name are needed, {0} may follow.":
    "Die erste Zeile muss die Spalten nennen; Kind und Name sind nötig, {0} können folgen.",
  "{0}: {1}: {2}": "{0}: {1}: {2}",
  "The description is {0} MB; up to {1} MB are read.": "Die Beschreibung ist {0} MB groß; gelesen werden bis {1} MB.",
  "The description is not UTF-8 text.": "Die Beschreibung ist kein UTF-8-Text.",
  "This is neither JSON nor YAML: {0}": "Das ist weder JSON noch YAML: {0}",
  "The description nests more than {0} levels deep.": "Die Beschreibung ist tiefer als {0} Ebenen geschachtelt.",
  "The reference {0} leads out of the description's folder and was not followed.":
    "Der Verweis {0} führt aus dem Ordner der Beschreibung hinaus; ihm wurde nicht gefolgt.",
  "The reference {0} leads nowhere.": "Der Verweis {0} führt nirgendwohin.",
  "The description refers to more than {0} files; the others were not read.":
    "Die Beschreibung verweist auf mehr als {0} Dateien; die anderen wurden nicht gelesen.",
  "The file {0}, which the description refers to, is not there.":
    "Die Datei {0}, auf die die Beschreibung verweist, ist nicht da.",
  "The file {0} cannot be read: {1}": "Die Datei {0} kann nicht gelesen werden: {1}",
  "This describes itself as version {0}; OpenAPI 3.0 and 3.1 are read.":
    "Dies nennt sich Version {0}; gelesen werden OpenAPI 3.0 und 3.1.",
  'This is no OpenAPI description: it has no "openapi" with a version.':
    "Das ist keine OpenAPI-Beschreibung: Es fehlt „openapi“ mit einer Version.",
  "The description has no title, so its interface is called after the file.":
    "Die Beschreibung hat keinen Titel; ihre Schnittstelle heißt nach der Datei.",
  'This is no WSDL 1.1 description: it begins with <{0}> of the namespace "{1}".':
    "Das ist keine WSDL-1.1-Beschreibung: Sie beginnt mit <{0}> aus dem Namensraum „{1}“.",
  "The import {0} leads out of the description's folder and was not followed.":
    "Der Import {0} führt aus dem Ordner der Beschreibung hinaus; ihm wurde nicht gefolgt.",
  "The file {0}, which the description imports, is not there.":
    "Die Datei {0}, die die Beschreibung importiert, ist nicht da.",
  "The message {0} is not described.": "Die Nachricht {0} ist nicht beschrieben.",
  "The element {0} of a message is not described.": "Das Element {0} einer Nachricht ist nicht beschrieben.",
  "The entry {0} leads out of the archive.": "Der Eintrag {0} führt aus dem Archiv hinaus.",
  "The entry {0} is there twice.": "Der Eintrag {0} ist zweimal da.",
  "The entry {0} is locked with a password.": "Der Eintrag {0} ist mit einem Passwort verschlossen.",
  "The entry {0} is packed in a way that is not read.": "Der Eintrag {0} ist so gepackt, dass er nicht gelesen wird.",
  "Unpacked it is larger than {0} MB.": "Ausgepackt ist es größer als {0} MB.",
  "This is not a zip archive.": "Das ist kein Zip-Archiv.",
  "It holds more than {0} entries.": "Es enthält mehr als {0} Einträge.",
  "Its list of entries is damaged.": "Seine Liste der Einträge ist beschädigt.",
  "It is too large for a package.": "Es ist zu groß für ein Paket.",
  "There is no model.bpmn in this archive, so it is no package.":
    "In diesem Archiv ist keine model.bpmn; es ist kein Paket.",
  "The decisions in {0} cannot be read.": "Die Entscheidungen in {0} können nicht gelesen werden.",
  "There is no {0} in it, so it is not a package.": "Darin ist kein {0}; es ist kein Paket.",
  "Its {0} is not that of a package.": "Sein {0} ist nicht das eines Pakets.",
  'This is no file of decisions: DMN 1.3, 1.4 and 1.5 are read, and its first element is "{0}" of "{1}".':
    "Das ist keine Datei mit Entscheidungen: Gelesen werden DMN 1.3, 1.4 und 1.5, und ihr erstes Element ist „{0}“ aus „{1}“.",
  "This decision is no longer there. Open the list again.":
    "Diese Entscheidung ist nicht mehr da. Öffnen Sie die Liste noch einmal.",
  "A name begins with a letter, so that expressions can use it.":
    "Ein Name beginnt mit einem Buchstaben, damit Ausdrücke ihn benutzen können.",
  "“{0}” is there already: an expression could not tell the two apart. Choose another name.":
    "„{0}“ gibt es schon: Ein Ausdruck könnte beide nicht unterscheiden. Wählen Sie einen anderen Namen.",
  "“{0}” is needed by {1}. Change {2} first.": "„{0}“ wird von {1} gebraucht. Ändern Sie zuerst {2}.",
  "“{0}” is not understood: {1}. Write it in FEEL, such as “[1..5]”, or in words, such as “from 1 to under 5”.":
    "„{0}“ ist unverständlich: {1}. Schreiben Sie es in FEEL, etwa „[1..5]“, oder in Worten, etwa „from 1 to under 5“.",
  "“{0}” is not understood: {1}. A text stands in quotation marks.":
    "„{0}“ ist unverständlich: {1}. Ein Text steht in Anführungszeichen.",
  "“{0}” is not understood: {1}.": "„{0}“ ist unverständlich: {1}.",
  "This has to be filled in.": "Das muss ausgefüllt werden.",
  "A number is asked for here, as 12 or 3.5.": "Hier ist eine Zahl gefragt, wie 12 oder 3.5.",
  "At least {0} is asked for here.": "Hier ist mindestens {0} gefragt.",
  "At most {0} is asked for here.": "Hier ist höchstens {0} gefragt.",
  "Yes or no is asked for here.": "Hier ist ja oder nein gefragt.",
  "One of {0} is asked for here.": "Hier ist eines von {0} gefragt.",
  "At least {0} letters are asked for here.": "Hier sind mindestens {0} Zeichen gefragt.",
  "At most {0} letters are asked for here.": "Hier sind höchstens {0} Zeichen gefragt.",
  'A list as JSON is asked for here, as [{"name": 1}].': 'Hier ist eine Liste als JSON gefragt, wie [{"name": 1}].',
  'A record as JSON is asked for here, as {"name": 1}.': 'Hier ist ein Datensatz als JSON gefragt, wie {"name": 1}.',
  "There is nothing in the example. Paste JSON, or lines of a spreadsheet with headings.":
    "Im Beispiel ist nichts. Fügen Sie JSON ein, oder Zeilen einer Tabelle mit Überschriften.",
  "This begins like JSON and cannot be read as such: {0}.":
    "Das beginnt wie JSON und kann nicht so gelesen werden: {0}.",
  "An example is a record with named values, or a list of such.":
    "Ein Beispiel ist ein Datensatz mit benannten Werten, oder eine Liste davon.",
  "The first line holds the headings, and at least one line of values follows.":
    "Die erste Zeile enthält die Überschriften, und mindestens eine Zeile mit Werten folgt.",
  "A date is asked for here, as 2027-03-31.": "Hier ist ein Datum gefragt, wie 2027-03-31.",
  "A date and a time are asked for here, as 2027-03-31T14:30:00.":
    "Hier sind Datum und Uhrzeit gefragt, wie 2027-03-31T14:30:00.",
  "A time of day is asked for here, as 14:30:00.": "Hier ist eine Uhrzeit gefragt, wie 14:30:00.",
  "A length of time is asked for here, as P2D for two days or PT4H for four hours.":
    "Hier ist eine Dauer gefragt, wie P2D für zwei Tage oder PT4H für vier Stunden.",
  "This is too long for a list of steps. Paste the rows that are wanted.":
    "Das ist zu lang für eine Schrittliste. Fügen Sie die gewünschten Zeilen ein.",
  "Row {0}: a quotation mark is opened and not closed. Close it, or double it if it belongs to the text.":
    "Zeile {0}: Ein Anführungszeichen wird geöffnet und nicht geschlossen. Schließen Sie es, oder verdoppeln Sie es, wenn es zum Text gehört.",
  "{0} rows are more than the {1} a sheet takes.": "{0} Zeilen sind mehr als die {1}, die eine Liste fasst.",
};
