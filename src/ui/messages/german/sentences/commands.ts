/** What changes of a model are called, and why one cannot be made, in German, by its English code. */
export const commands = {
  "Choose at least {0} elements of this page to line up.":
    "Wählen Sie mindestens {0} Elemente dieser Seite zum Ausrichten.",
  two: "zwei",
  three: "drei",
  "{0} would lie outside every pool; a step belongs into one.":
    "{0} läge außerhalb jedes Pools; ein Schritt gehört in einen.",
  "{0} is now done by {1}.": "{0} wird jetzt getan von: {1}.",
  "The step": "Der Schritt",
  "another lane": "eine andere Bahn",
  "A sub-process cannot be moved into itself.": "Ein Teilprozess kann nicht in sich selbst verschoben werden.",
  "The flow between {0} and {1} is gone: it would cross the edge of a process.":
    "Der Fluss zwischen {0} und {1} ist weg: Er ginge über den Rand eines Prozesses.",
  "the step": "dem Schritt",
  "its neighbour": "seinem Nachbarn",
  "This element is not drawn on this page.": "Dieses Element ist auf dieser Seite nicht gezeichnet.",
  "There is nothing beyond that line to be moved.": "Jenseits dieser Linie ist nichts zu verschieben.",
  "Choose flows of this page to straighten.": "Wählen Sie Flüsse dieser Seite, die gerade werden sollen.",
  "This page shows nothing that could be laid out.": "Diese Seite zeigt nichts, was angeordnet werden könnte.",
  "Choose at least two steps that are to be tidied among each other.":
    "Wählen Sie mindestens zwei Schritte, die untereinander geordnet werden sollen.",
  "These steps lie in different processes or sub-processes. Tidy each of them by itself.":
    "Diese Schritte liegen in verschiedenen Prozessen oder Teilprozessen. Ordnen Sie jeden für sich.",
  "The tidied steps would lie over others. Make room beside them first, or choose those as well.":
    "Die geordneten Schritte lägen über anderen. Schaffen Sie daneben zuerst Platz, oder wählen Sie jene mit.",
  "{0} cannot be bound: only service, send and receive tasks call an operation. Make it one first.":
    "{0} kann nicht gebunden werden: Nur Service-, Sende- und Empfangsaufgaben rufen eine Operation auf. Machen Sie zuerst eine daraus.",
  'This candidate is kept already, as "{0}".': "Dieser Kandidat ist schon behalten, als „{0}“.",
  "There is no activity in it that a service could do.": "Darin ist keine Aktivität, die ein Dienst tun könnte.",
  '"{0}" is no candidate service.': "„{0}“ ist kein Dienstkandidat.",
  "{0} is no data, and has no state.": "{0} sind keine Daten und haben keinen Zustand.",
  "{0} is no pool.": "{0} ist kein Pool.",
  "{0} cannot decide by a table: only a business rule task does. Make it one first.":
    "{0} kann nicht nach einer Tabelle entscheiden: Das tut nur eine Geschäftsregelaufgabe. Machen Sie zuerst eine daraus.",
  "{0} names no message, signal, error or escalation.":
    "{0} nennt keine Nachricht, kein Signal, keinen Fehler und keine Eskalation.",
  "“{0}” is no time. Write a duration (3 days, 10 working days), a date (1 March 2027 at 9:00) or how often (every night at 2:00), or ISO 8601.":
    "„{0}“ ist keine Zeit. Schreiben Sie eine Dauer (3 days, 10 working days), ein Datum (1 March 2027 at 9:00) oder wie oft (every night at 2:00), oder ISO 8601.",
  "{0} is not repeated in this way.": "{0} wird nicht auf diese Weise wiederholt.",
  "“{0}” is no number of times. Write a whole number from 1.":
    "„{0}“ ist keine Anzahl. Schreiben Sie eine ganze Zahl ab 1.",
  "“{0}” is no address. Write one that starts with https://, http:// or mailto:.":
    "„{0}“ ist keine Adresse. Schreiben Sie eine, die mit https://, http:// oder mailto: beginnt.",
  "{0} calls no process.": "{0} ruft keinen Prozess auf.",
  "{0} is not filled in by a person. A user task or a start event has a form.":
    "{0} wird von niemandem ausgefüllt. Ein Formular hat eine Benutzeraufgabe oder ein Startereignis.",
  "“{0}” is no data of the process. Choose another id.":
    "„{0}“ sind keine Daten des Prozesses. Wählen Sie eine andere Kennung.",
  "“{0}” is there already: a condition could not tell the two apart.":
    "„{0}“ gibt es schon: Eine Bedingung könnte beide nicht unterscheiden.",
  "This data is drawn. Delete its shape in the diagram, and it goes with it.":
    "Diese Daten sind gezeichnet. Löschen Sie ihre Form im Diagramm, dann gehen sie mit.",
  "This is no data of a process.": "Das sind keine Daten eines Prozesses.",
  "Nobody has said yet what this data holds.": "Noch hat niemand gesagt, was diese Daten enthalten.",
  "“{0}” is there already, or the part is gone.": "„{0}“ gibt es schon, oder der Teil ist weg.",
  "This is no data of the process the step stands in.": "Das sind keine Daten des Prozesses, in dem der Schritt steht.",
  "{0} reads no data; activities do, and events that throw.":
    "{0} liest keine Daten; das tun Aktivitäten und auslösende Ereignisse.",
  "{0} writes no data; activities do, and events that catch.":
    "{0} schreibt keine Daten; das tun Aktivitäten und eintretende Ereignisse.",
  "A {0} has no name.": "Das hat keinen Namen: {0}.",
  "{0} is a {1} and cannot become a {2}. Delete it and add the other.":
    "{0} kann seine Art nicht so wechseln: von {1} zu {2}. Löschen Sie es, und fügen Sie das andere hinzu.",
  "The standard has no such event: {0} {1}.": "Der Standard kennt kein solches Ereignis: {0} {1}.",
  "{0} has no {1} any more: a {2} has no place for it.": "{0} hat es nicht mehr ({1}): Dafür ist kein Platz bei: {2}.",
  'A {0} has no "{1}".': "Das gibt es hier nicht ({0}): „{1}“.",
  '"{0}" is no value for "{1}" of a {2}.': "„{0}“ ist kein Wert für „{1}“ ({2}).",
  "The default must be a flow that leaves this very element.":
    "Die übliche Antwort muss ein Fluss sein, der von eben diesem Element abgeht.",
  "Only a sequence flow has a condition.": "Nur ein Sequenzfluss hat eine Bedingung.",
  "{0} has no timer.": "{0} hat keine Zeit.",
  '"{0}" is no value for this.': "„{0}“ ist dafür kein Wert.",
  "A number is no value for this.": "Eine Zahl ist dafür kein Wert.",
  "A share is from 0 to 100 %.": "Ein Anteil liegt zwischen 0 und 100 %.",
  '"{0}" is no known time zone; write it like Europe/Lisbon.':
    "„{0}“ ist keine bekannte Zeitzone; schreiben Sie sie wie Europe/Lisbon.",
  "Data is drawn for the cases of a process.": "Daten werden für die Fälle eines Prozesses gezogen.",
  "This scenario is not there any more.": "Dieses Szenario ist nicht mehr da.",
  "{0} is not an activity; time and cost are estimated for activities.":
    "{0} ist keine Aktivität; Zeit und Kosten werden für Aktivitäten geschätzt.",
  '"{0}" is no duration. Write it like 30 min, 1 h 30 min, 2 days or PT30M.':
    "„{0}“ ist keine Dauer. Schreiben Sie sie wie 30 min, 1 h 30 min, 2 days oder PT30M.",
  "Targets are of a process or a step.": "Ziele gehören zu einem Prozess oder einem Schritt.",
  "A target of cost says how much.": "Ein Kostenziel sagt, wie viel.",
  "A path is from one step through another, and is done within a time.":
    "Ein Weg geht von einem Schritt bis zu einem anderen und ist innerhalb einer Zeit fertig.",
  "{0} is not an activity; only activities have people.": "{0} ist keine Aktivität; nur Aktivitäten haben Leute.",
  "{0} is no role of a step, so it cannot be taken off one.":
    "{0} ist keine Rolle eines Schrittes und kann von keinem genommen werden.",
  "What was copied is not whole, and cannot be put down. Copy it anew.":
    "Was kopiert wurde, ist nicht vollständig und kann nicht eingefügt werden. Kopieren Sie es neu.",
  "{0} is no step; systems are used by steps.": "{0} ist kein Schritt; Systeme werden von Schritten benutzt.",
  "{0} takes no documents; activities do, and events that throw.":
    "{0} nimmt keine Dokumente; das tun Aktivitäten und auslösende Ereignisse.",
  "{0} gives no documents; activities do, and events that catch.":
    "{0} ergibt keine Dokumente; das tun Aktivitäten und eintretende Ereignisse.",
  "The steps are not drawn here.": "Die Schritte sind hier nicht gezeichnet.",
  "This connection has lost an end; delete it and draw it again.":
    "Diese Verbindung hat ein Ende verloren; löschen Sie sie, und zeichnen Sie sie neu.",
  "There, the connection would be a {0}, not a {1}. Delete it and draw a new one.":
    "Dort wäre die Verbindung von anderer Art: {0}, nicht {1}. Löschen Sie sie, und zeichnen Sie eine neue.",
  "Delete this data association and draw a new one: the data it carries belongs to its activity.":
    "Löschen Sie diese Datenassoziation, und zeichnen Sie eine neue: Ihre Daten gehören zu ihrer Aktivität.",
  "This connection is not drawn on this page.": "Diese Verbindung ist auf dieser Seite nicht gezeichnet.",
  "There is nothing on this page to put a note on.": "Auf dieser Seite ist nichts, woran eine Notiz könnte.",
  "A {0} belongs into a pool; place it inside one.": "Das gehört in einen Pool ({0}); setzen Sie es hinein.",
  "What this follows is not drawn on this page.": "Worauf dies folgt, ist auf dieser Seite nicht gezeichnet.",
  "Nothing can follow this element.": "Auf dieses Element kann nichts folgen.",
  "Only a sequence flow can be split by a step.": "Nur ein Sequenzfluss kann durch einen Schritt geteilt werden.",
  "A {0} cannot stand in a sequence flow.": "Das kann nicht in einem Sequenzfluss stehen: {0}.",
  "The flow is not drawn on this page.": "Der Fluss ist auf dieser Seite nicht gezeichnet.",
  "The flow belongs to nothing.": "Der Fluss gehört zu nichts.",
  "{0} cannot have an event at its edge; only activities can.":
    "{0} kann kein Randereignis haben; das können nur Aktivitäten.",
  "The activity is not drawn on this page.": "Die Aktivität ist auf dieser Seite nicht gezeichnet.",
  "A {0} is not allowed at this place ({1}).": "Das ist an dieser Stelle nicht erlaubt: {0} ({1}).",
  "This sub-process is open in place already.": "Dieser Teilprozess ist schon an Ort und Stelle offen.",
  "This sub-process is closed already.": "Dieser Teilprozess ist schon zugeklappt.",
  "{0} has no inside that could be shown.": "{0} hat kein Inneres, das gezeigt werden könnte.",
  "The sub-process is not drawn on this page.": "Der Teilprozess ist auf dieser Seite nicht gezeichnet.",
  "There is no process here to paste into; point inside a pool.":
    "Hier ist kein Prozess zum Einfügen; zeigen Sie in einen Pool.",
  "The process itself cannot be deleted from its own page; delete its pools and steps, or the process on Home.":
    "Der Prozess selbst kann nicht von seiner eigenen Seite gelöscht werden; löschen Sie seine Pools und Schritte, oder den Prozess auf der Startseite.",
  "The flow from {0} to {1} ran through {2} and is now open.":
    "Der Fluss von {0} zu {1} ging durch {2} und ist jetzt offen.",
  "{0} is a {1} and cannot become a {2}.": "{0} kann seine Art nicht so wechseln: von {1} zu {2}.",
  "{0} has steps inside; dissolve it, or take them out first.":
    "{0} hat Schritte in sich; lösen Sie es auf, oder nehmen Sie sie zuerst heraus.",
  "{0} is attached to it, and only activities have events at their edge.":
    "{0} hängt daran, und nur Aktivitäten haben Randereignisse.",
  "Choose an embedded sub-process of this page to be dissolved.":
    "Wählen Sie einen eingebetteten Teilprozess dieser Seite zum Auflösen.",
  "{0} is done several times; its steps would be done once. Take the repetition off first.":
    "{0} wird mehrmals getan; seine Schritte würden einmal getan. Nehmen Sie zuerst die Wiederholung weg.",
  "“{0}” at the edge of {1} watches over all its steps; take it off or attach it to one of them first.":
    "„{0}“ am Rand von {1} wacht über alle seine Schritte; nehmen Sie es weg, oder heften Sie es zuerst an einen davon.",
  "An event": "Ein Ereignis",
  "Several flows leave {0}; lead them through a gateway first.":
    "Mehrere Flüsse gehen von {0} ab; führen Sie sie zuerst durch ein Gateway.",
  "The flow out of {0} has a condition of its own.": "Der Fluss aus {0} hat eine eigene Bedingung.",
  "The inside of {0} begins at several places; join them first.":
    "Das Innere von {0} beginnt an mehreren Stellen; vereinen Sie sie zuerst.",
  "Several flows leave the start inside {0}.": "Mehrere Flüsse gehen vom Start innerhalb von {0} ab.",
  "Nothing follows {0} inside {1}; lead it to the end first.":
    "Nichts folgt auf {0} innerhalb von {1}; führen Sie es zuerst zum Ende.",
  "The inside of {0} has several ends; lead its paths to one end first.":
    "Das Innere von {0} hat mehrere Enden; führen Sie seine Wege zuerst zu einem.",
  "{0} does more than end {1}; a plain end is needed.":
    "{0} tut mehr, als {1} zu beenden; es braucht ein einfaches Ende.",
  "The chosen steps are not drawn on this page.": "Die gewählten Schritte sind auf dieser Seite nicht gezeichnet.",
  "{0} stays with {1}.": "{0} bleibt bei {1}.",
  "A step": "Ein Schritt",
  'What this change is about ("{0}") is no longer in the model.': "Worum es geht („{0}“), ist nicht mehr im Modell.",
  "The page this change is about is no longer there.": "Die Seite, um die es geht, ist nicht mehr da.",
  "A {0} cannot stand in a {1}.": "Das eine kann nicht im anderen stehen: {0} in {1}.",
  'The id "{0}" is in use already.': "Die Kennung „{0}“ ist schon in Gebrauch.",
  "{0} elements": "{0} Elemente",
  " to {0}": " zu {0}",
  "Choose the steps that belong together first.": "Wählen Sie zuerst die Schritte, die zusammengehören.",
  "These steps lie in different processes or sub-processes; choose those of one.":
    "Diese Schritte liegen in verschiedenen Prozessen oder Teilprozessen; wählen Sie die eines einzigen.",
  "{0} starts the process; a sub-process begins without a trigger.":
    "{0} löst den Prozess aus; ein Teilprozess beginnt ohne Auslöser.",
  "The selection is entered at several places: {0}. A sub-process has one way in.":
    "In die Auswahl führen mehrere Wege: {0}. Ein Teilprozess hat einen Eingang.",
  "{0} joins flows from outside; leave it outside of the sub-process.":
    "{0} vereint Flüsse von außen; lassen Sie es außerhalb des Teilprozesses.",
  "The selection is left by several flows: after {0}. Choose on to where they join again.":
    "Aus der Auswahl führen mehrere Flüsse: nach {0}. Wählen Sie weiter, bis sie sich wieder treffen.",
  "A lane is part of a pool; place it inside one.": "Eine Bahn ist Teil eines Pools; setzen Sie sie in einen.",
  "place {0}": "setzen: {0}",
  "add {0} after {1}": "anfügen: {0} nach {1}",
  "insert {0}": "einfügen: {0}",
  "attach {0} to {1}": "anheften: {0} an {1}",
  "connect {0} to {1}": "{0} mit {1} verbinden",
  "lead {0} to {1}": "{0} zu {1} führen",
  "bend {0}": "umführen: {0}",
  "name {0}": "benennen: {0}",
  "make {0} a {1}": "{0} zu etwas anderem machen: {1}",
  "set {0} of {1}": "{0} setzen: {1}",
  "describe {0}": "beschreiben: {0}",
  "set the condition of {0}": "die Bedingung setzen: {0}",
  "set the timer of {0}": "die Zeit setzen: {0}",
  "set how often {0} is done": "setzen, wie oft es getan wird: {0}",
  "move {0}{1}": "verschieben: {0}{1}",
  "move {0} to {1}": "verschieben: {0} nach {1}",
  "resize {0}": "Größe ändern: {0}",
  "move the label of {0}": "den Namen verschieben: {0}",
  "delete {0}": "löschen: {0}",
  "add lane {0}": "Bahn anlegen: {0}",
  "open a page for {0}": "Seite öffnen für {0}",
  "make {0} {1} for {2}": "{0} für {2}: {1}",
  "take a role off a step": "einem Schritt eine Rolle nehmen",
  "tie the lane to {0}": "die Bahn an {0} binden",
  "untie the lane from its role": "die Bahn von ihrer Rolle lösen",
  "let {0} use {1}": "{0} benutzt {1}",
  "take a system off {0}": "ein System wegnehmen: {0}",
  "give {0} {1}": "{0}: {1} geben",
  "rename {0} to {1}": "{0} in {1} umbenennen",
  "paste {0}": "einfügen: {0}",
  "estimate {0}": "schätzen: {0}",
  "say what a scenario assumes of {0}": "sagen, was ein Szenario annimmt: {0}",
  "add the scenario {0}": "Szenario anlegen: {0}",
  "take a scenario away": "ein Szenario entfernen",
  "say how a scenario is run": "sagen, wie ein Szenario gerechnet wird",
  "say where a system is": "sagen, wo ein System steht",
  "say what lies between {0} and {1}": "sagen, was zwischen {0} und {1} liegt",
  "say what is to be kept of {0}": "sagen, was eingehalten werden soll: {0}",
  "say what {0} is called in {1}": "sagen, wie es heißt: {0} auf {1}",
  "say how {0} is spread over cases": "sagen, wie es sich auf Fälle verteilt: {0}",
  "set the hours {0}": "die Stunden setzen: {0}",
  "tie {0} to its words": "{0} an seine Wörter binden",
  "untie {0} from its words": "{0} von seinen Wörtern lösen",
  "tidy {0}": "ordnen: {0}",
  "tidy the page": "die Seite ordnen",
  "align {0}": "ausrichten: {0}",
  "distribute {0}": "verteilen: {0}",
  "give {0} one size": "gleich groß machen: {0}",
  "straighten a flow": "einen Fluss gerade führen",
  "straighten {0} flows": "{0} Flüsse gerade führen",
  "make room to the right": "rechts Platz schaffen",
  "make room below": "unten Platz schaffen",
  "move the lane {0} {1}": "die Bahn {0} bewegen: {1}",
  "split the lane {0}": "die Bahn {0} teilen",
  "open {0} in place": "am Ort öffnen: {0}",
  "close {0}": "zuklappen: {0}",
  "wrap {0} into {1}": "{0} in {1} fassen",
  "dissolve {0}": "auflösen: {0}",
  "take {0} out into a process": "als Prozess herauslösen: {0}",
  "say that {0} is {1}": "sagen, dass {0} {1} ist",
  "take the state off {0}": "den Zustand wegnehmen: {0}",
  "make {0} several": "mehrere daraus machen: {0}",
  "make {0} one": "eines daraus machen: {0}",
  "say what {0} is about": "sagen, worum es geht: {0}",
  "set the counterparts of {0}": "die Gegenstücke setzen: {0}",
  "move the lane {0}": "die Bahn {0} bewegen",
  "make {0} and {1} one": "{0} und {1} zu einem machen",
  "describe {0} in {1}": "beschreiben: {0} auf {1}",
  "set the links of {0}": "die Verweise setzen: {0}",
  "say which version {0} calls": "sagen, welche Version {0} aufruft",
  "bind {0} to the operation {1}": "{0} an die Operation {1} binden",
  "bind {0} to no operation": "{0} an keine Operation binden",
  "let {0} decide by {1}": "{0} entscheidet nach {1}",
  "let {0} decide by nothing": "{0} entscheidet nach nichts",
  "arrange the form of {0}": "das Formular anordnen: {0}",
  "say what {0} holds": "sagen, was {0} enthält",
  "take {0} out of the data": "{0} aus den Daten nehmen",
  "rename data to {0}": "Daten in {0} umbenennen",
  "say what {0} does with data": "sagen, was {0} mit Daten tut",
  "take over what decisions are called and answer": "übernehmen, wie Entscheidungen heißen und was sie ergeben",
  "say what {0} of {1} is": "sagen, was {0} von {1} ist",
  "keep the candidate service {0}": "Dienstkandidat behalten: {0}",
  "drop the candidate service {0}": "Dienstkandidat aufgeben: {0}",
  "name {0} by rule": "nach Regel benennen: {0}",
  "add {0} to {1}": "{0} zu {1} hinzufügen",
  "leave out {0}": "weglassen: {0}",
  "decide to {0} {1}": "entscheiden: {1} {0}",
  "take back what was decided of {0}": "zurücknehmen, was entschieden war: {0}",
  "say {0} of {1}": "{0} von {1} sagen",
  "weigh criteria of services": "Kriterien für Dienste gewichten",
  "say what {0} calls": "sagen, was {0} aufruft",
  "Only lanes can change places.": "Nur Bahnen können Plätze tauschen.",
  "There is no lane {0} this one to change places with.": "Zum Tauschen gibt es keine Bahn: {0}.",
  "A lane moves among the lanes it stands with: those of its own pool, or of its own lane.":
    "Eine Bahn bewegt sich unter den Bahnen, bei denen sie steht: denen ihres Pools oder ihrer Bahn.",
  "Choose a lane of this page to split.": "Wählen Sie eine Bahn dieser Seite zum Teilen.",
  "This lane has lanes inside already; split one of those.":
    "Diese Bahn hat schon Bahnen in sich; teilen Sie eine davon.",
  "Upright lanes of a file are shown as they are, and not split.":
    "Senkrechte Bahnen einer Datei werden gezeigt, wie sie sind, und nicht geteilt.",
  "{0} shows no process, so it has no lanes.": "{0} zeigt keinen Prozess und hat darum keine Bahnen.",
  "There is no lane {0} {1}.": "Keine Bahn: {0} {1}.",
  "Steps are moved into lanes.": "Schritte werden in Bahnen verschoben.",
  "{0} belongs to another process.": "{0} gehört zu einem anderen Prozess.",
  "Only steps, events and gateways can be moved to another lane.":
    "Nur Schritte, Ereignisse und Gateways können in eine andere Bahn.",
  "The lanes are not drawn on this page.": "Die Bahnen sind auf dieser Seite nicht gezeichnet.",
  above: "darüber",
  below: "darunter",
};
