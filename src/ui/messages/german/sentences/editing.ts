/** What the step sheet and the model itself say, in German, by its English code. */
export const editing = {
  "Nothing can follow an end that no step leads to. Write the step before it.":
    "Auf ein Ende, zu dem kein Schritt führt, kann nichts folgen. Schreiben Sie den Schritt davor.",
  "Nothing comes before what begins a process or a path. Write the step after it.":
    "Vor dem, was einen Prozess oder Weg beginnt, steht nichts. Schreiben Sie den Schritt danach.",
  "Choose a single step; the new one is then done at the same time.":
    "Wählen Sie einen einzelnen Schritt; der neue wird dann gleichzeitig getan.",
  "What begins or ends a process has nothing at the same time. Choose a step.":
    "Was einen Prozess beginnt oder beendet, hat nichts Gleichzeitiges. Wählen Sie einen Schritt.",
  "This row's step is no longer in the model.": "Der Schritt dieser Zeile ist nicht mehr im Modell.",
  "This is drawn on no page. Open the diagram and tidy it first.":
    "Das ist auf keiner Seite gezeichnet. Öffnen Sie zuerst das Diagramm, und ordnen Sie es.",
  "No step stands here to write this into. Choose a step's cell first.":
    "Hier steht kein Schritt, in den das geschrieben werden könnte. Wählen Sie zuerst die Zelle eines Schrittes.",
  "No step leads to this end. Delete it, or lead a path to it.":
    "Kein Schritt führt zu diesem Ende. Löschen Sie es, oder führen Sie einen Weg hin.",
  "Several ways leave this row. Choose one of them, and say where it leads.":
    "Von dieser Zeile gehen mehrere Wege ab. Wählen Sie einen, und sagen Sie, wohin er führt.",
  "Nothing would lead to {0} any more. Choose the last row of the path, or delete the rows behind this one first.":
    "Nichts führte mehr zu {0}. Wählen Sie die letzte Zeile des Weges, oder löschen Sie zuerst die Zeilen dahinter.",
  'The cost of "{0}" is "{1}", which is no amount. Write a number, such as 12.50.':
    "Die Kosten von „{0}“ sind „{1}“, was kein Betrag ist. Schreiben Sie eine Zahl, etwa 12.50.",
  "There is no row {0} to move past.": "Zum Vorbeischieben gibt es keine Zeile: {0}.",
  "A step stays within its process or sub-process. Delete it here and write it there.":
    "Ein Schritt bleibt in seinem Prozess oder Teilprozess. Löschen Sie ihn hier, und schreiben Sie ihn dort.",
  "Only steps within the flow can be moved.": "Nur Schritte im Fluss können bewegt werden.",
  "A row with several ways out, or none, stays where it is. Move the steps around it.":
    "Eine Zeile mit mehreren Ausgängen, oder keinem, bleibt, wo sie ist. Bewegen Sie die Schritte um sie herum.",
  "The step cannot be moved past the end of its path.":
    "Der Schritt kann nicht über das Ende seines Weges hinaus bewegt werden.",
  'No column is called "Step" (or Activity, Task, What). Name the column of the steps in the first row.':
    "Keine Spalte heißt „Step“ (oder Activity, Task, What). Nennen Sie die Spalte der Schritte in der ersten Zeile.",
  'Row {0}: "{1}" is no kind of row. Write userTask, exclusiveGateway, path, or another that docs/step-sheet.md lists.':
    "Zeile {0}: „{1}“ ist keine Art von Zeile. Schreiben Sie userTask, exclusiveGateway, path oder eine andere aus docs/step-sheet.md.",
  'Row {0}: the level "{1}" is no whole number from 0.': "Zeile {0}: Die Ebene „{1}“ ist keine ganze Zahl ab 0.",
  "Nothing stands here. Delete the step above, or lead the path on.":
    "Hier steht nichts. Löschen Sie den Schritt darüber, oder führen Sie den Weg weiter.",
  "it is indented, but no step stands above it": "sie ist eingerückt, doch darüber steht kein Schritt",
  "an event at an edge stands indented below its step": "ein Randereignis steht eingerückt unter seinem Schritt",
  'there is no step with the number "{0}"': "es gibt keinen Schritt mit der Nummer „{0}“",
  "it is indented further than what stands above it allows":
    "sie ist weiter eingerückt, als das Darüberstehende erlaubt",
  "a path needs a step above it that it leads out of": "ein Weg braucht darüber einen Schritt, von dem er abgeht",
  'Row {0} ("{1}") cannot be placed: {2}.': "Zeile {0} („{1}“) kann nicht gesetzt werden: {2}.",
  "There is no column “Id” and “Name ({0})” or “Description ({1})” in this table. Save it as CSV here, fill it in, and read it again.":
    "In dieser Tabelle fehlt die Spalte „Id“ und „Name ({0})“ oder „Description ({1})“. Speichern Sie sie hier als CSV, füllen Sie sie aus, und lesen Sie sie wieder ein.",
  "A sequence flow joins activities, events and gateways; {0} is none of them.":
    "Ein Sequenzfluss verbindet Aktivitäten, Ereignisse und Gateways; {0} ist nichts davon.",
  "{0} is a start event, and no sequence flow may lead to one. End the flow at the step behind it.":
    "{0} ist ein Startereignis; dorthin darf kein Sequenzfluss führen. Lassen Sie den Fluss beim Schritt dahinter enden.",
  "{0} is an end event, and no sequence flow may leave one. Use an intermediate event if work goes on.":
    "{0} ist ein Endereignis; von dort darf kein Sequenzfluss abgehen. Nehmen Sie ein Zwischenereignis, wenn es weitergeht.",
  "{0} sits on the edge of an activity and is set off by it, so no sequence flow may lead to it.":
    "{0} sitzt am Rand einer Aktivität und wird von ihr ausgelöst; dorthin darf kein Sequenzfluss führen.",
  "An event sub-process is set off by its own start event; no sequence flow may lead to it or leave it.":
    "Einen Ereignis-Teilprozess löst sein eigenes Startereignis aus; kein Sequenzfluss darf hin- oder wegführen.",
  "Compensation stands outside the normal flow; join the event and its activity with an association.":
    "Kompensation steht außerhalb des üblichen Flusses; verbinden Sie das Ereignis und seine Aktivität mit einer Assoziation.",
  "A link jumps from its throwing to its catching event; a flow may only lead to the first and leave the second.":
    "Ein Verweis springt von seinem auslösenden zu seinem eintretenden Ereignis; ein Fluss darf nur zum ersten führen und vom zweiten abgehen.",
  "{0} and {1} are in different processes or sub-processes, and a sequence flow may not cross that edge. Lead it to the sub-process itself.":
    "{0} und {1} sind in verschiedenen Prozessen oder Teilprozessen, und ein Sequenzfluss darf nicht über diesen Rand. Führen Sie ihn zum Teilprozess selbst.",
  "{0} and {1} are in different pools; between pools there are message flows, not sequence flows.":
    "{0} und {1} sind in verschiedenen Pools; zwischen Pools gibt es Nachrichtenflüsse, keine Sequenzflüsse.",
  "An event-based gateway waits for what happens first, so a catching event or a receive task must follow it; {0} is neither.":
    "Ein ereignisbasiertes Gateway wartet auf das, was zuerst geschieht; darauf muss ein eintretendes Ereignis oder eine Empfangsaufgabe folgen, und {0} ist keines von beiden.",
  "A message flow joins two pools; {0} and {1} are not in different ones.":
    "Ein Nachrichtenfluss verbindet zwei Pools; {0} und {1} sind nicht in verschiedenen.",
  "{0} cannot send a message; a pool, an activity or a throwing message event can.":
    "{0} kann keine Nachricht senden; das können ein Pool, eine Aktivität oder ein auslösendes Nachrichtenereignis.",
  "{0} cannot receive a message; a pool, an activity or a catching message event can.":
    "{0} kann keine Nachricht empfangen; das können ein Pool, eine Aktivität oder ein eintretendes Nachrichtenereignis.",
  "one of {0} and {1}": "eines von {0} und {1}",
  "this {0}": "dies ({0})",
  "One end of the connection is no longer in the model.": "Ein Ende der Verbindung ist nicht mehr im Modell.",
  "{0} cannot be connected to itself.": "{0} kann nicht mit sich selbst verbunden werden.",
  "An association ties a note to something that is not a note.":
    "Eine Assoziation bindet eine Notiz an etwas, das keine Notiz ist.",
  "Data is read by activities and throwing events, and written by activities and catching events.":
    "Daten werden von Aktivitäten und auslösenden Ereignissen gelesen, von Aktivitäten und eintretenden Ereignissen geschrieben.",
  "This change would break the model: {0}. Nothing of it was done.":
    "Diese Änderung würde das Modell zerstören: {0}. Nichts davon wurde getan.",
  '"{0}" of the {1}: {2}': "„{0}“ ({1}): {2}",
  '"{0}" would be called "{1}"': "„{0}“ hieße „{1}“",
  '"{0}" is no {1} of "{2}"': "„{0}“ gehört nicht als {1} zu „{2}“",
  "the definitions would be gone": "die Definitionen wären weg",
  "it would have more than {0} elements": "es hätte mehr als {0} Elemente",
  "it would have more than {0} shapes and lines": "es hätte mehr als {0} Formen und Linien",
  "it would have more pages or figures than a model may have":
    "es hätte mehr Seiten oder Figuren, als ein Modell haben darf",
  '"{0}" draws "{1}", which would be gone': "„{0}“ zeichnet „{1}“, was weg wäre",
  '"{0}" would stand in itself': "„{0}“ stünde in sich selbst",
  '"{0}" is on a page that would be gone': "„{0}“ ist auf einer Seite, die weg wäre",
  'the figure "{0}" is of another element or kind':
    "die Figur „{0}“ gehört zu einem anderen Element oder einer anderen Art",
  '"{0}" is no {1}': "„{0}“ ist nicht: {1}",
  "This change no longer fits the model: {0}. Look at the newer state and make the change again.":
    "Diese Änderung passt nicht mehr zum Modell: {0}. Sehen Sie den neueren Stand an, und ändern Sie noch einmal.",
  "This stored model is damaged: {0}": "Dieses gespeicherte Modell ist beschädigt: {0}",
  "This is not a stored model: {0}": "Das ist kein gespeichertes Modell: {0}",
  "It could not be brought to form {0} ({1}): {2}": "Es konnte nicht in Form {0} gebracht werden ({1}): {2}",
  "This model was saved by a newer release. Start that release to open it.":
    "Dieses Modell hat eine neuere Ausgabe gespeichert. Starten Sie jene, um es zu öffnen.",
  "1 working day is 1 day, with five working days a week.":
    "1 Arbeitstag ist 1 Tag, bei fünf Arbeitstagen in der Woche.",
  "{0} working days are {1} days, with five working days a week.":
    "{0} Arbeitstage sind {1} Tage, bei fünf Arbeitstagen in der Woche.",
  '"{0}" has {1} triggers: {2}.': "„{0}“ hat {1} Auslöser: {2}.",
  "Each event that sets work off is a process of its own, unless the same work follows from all of them.":
    "Jedes Ereignis, das Arbeit auslöst, ist ein eigener Prozess, außer wenn aus allen dieselbe Arbeit folgt.",
  '"{0}" recurs inside one case of "{1}".': "„{0}“ kehrt innerhalb eines Falls von „{1}“ wieder.",
  "What happens by the clock happens for many cases at once: it wants a process of its own that starts with a timer and calls the work for each case.":
    "Was nach der Uhr geschieht, geschieht für viele Fälle zugleich: Es braucht einen eigenen Prozess, der mit einer Zeit beginnt und die Arbeit für jeden Fall aufruft.",
  "{0} is marked as a role and as an outside party.": "{0} ist als Rolle und als Außenstehender markiert.",
  "{0} is marked as a role.": "{0} ist als Rolle markiert.",
  "Who only deals with the organisation is no lane of its process: an outside party is a closed pool, and what passes between them is a message.":
    "Wer nur mit der Organisation zu tun hat, ist keine Bahn ihres Prozesses: Ein Außenstehender ist ein geschlossener Pool, und was zwischen ihnen geht, ist eine Nachricht.",
  '"{0}" is done in {1}.': "„{0}“ wird getan in {1}.",
  "Work used in two places is drawn once and called from both, so that a change is made once.":
    "Arbeit, die an zwei Stellen gebraucht wird, wird einmal gezeichnet und von beiden aufgerufen; so wird einmal geändert.",
  'The paragraph "{0} …" holds {1} and {2}.': "Der Absatz „{0} …“ enthält {1} und {2}.",
  "1 step": "1 Schritt",
  "{0} steps": "{0} Schritte",
  "1 decision": "1 Entscheidung",
  "{0} decisions": "{0} Entscheidungen",
  "A complicated paragraph is clearer as a sub-process or as a process that is called, so that each diagram stays readable.":
    "Ein verwickelter Absatz ist klarer als Teilprozess oder als aufgerufener Prozess; so bleibt jedes Diagramm lesbar.",
  "{0} does nothing in this text.": "{0} tut in diesem Text nichts.",
  "A role without a step makes an empty lane. Mark what they do, or ask whether they take part.":
    "Eine Rolle ohne Schritt ergibt eine leere Bahn. Markieren Sie, was sie tut, oder fragen Sie, ob sie beteiligt ist.",
  'Nobody is said to do "{0}".': "Von niemandem heißt es, dass er dies tut: „{0}“.",
  "A step without a role stands in no lane. Mark who does it in the same sentence, or ask.":
    "Ein Schritt ohne Rolle steht in keiner Bahn. Markieren Sie im selben Satz, wer ihn tut, oder fragen Sie.",
  'Nothing is marked in "{0}"': "Nichts ist markiert in „{0}“",
  "Every sentence is either in a model or background. Mark what it says, or set it aside.":
    "Jeder Satz ist entweder in einem Modell oder Hintergrund. Markieren Sie, was er sagt, oder legen Sie ihn beiseite.",
  "There is no process to build into.": "Es gibt keinen Prozess, in den gebaut werden könnte.",
  '"{0}" has steps but no start event to build from. Give it one first.':
    "„{0}“ hat Schritte, aber kein Startereignis, von dem aus gebaut werden könnte. Geben Sie ihm zuerst eines.",
  "Choose what it is that happens.": "Wählen Sie, was geschieht.",
  "Choose a step; what happens meanwhile is then written below it.":
    "Wählen Sie einen Schritt; was währenddessen geschieht, wird dann darunter geschrieben.",
  "Choose a question, or one of the ways out of it.": "Wählen Sie eine Frage, oder einen ihrer Wege.",
  "It ends here": "Es endet hier",
  "It goes on": "Es geht weiter",
  "It waits again": "Es wartet noch einmal",
  Yes: "Ja",
  No: "Nein",
  "Both go on": "Beide gehen weiter",
  "It ends where the answer is no": "Es endet, wo die Antwort nein ist",
  "It ends where the answer is yes": "Es endet, wo die Antwort ja ist",
  "As it is drawn": "Wie gezeichnet",
  "Nobody in particular": "Niemand Bestimmtes",
  "An answer of its own": "Eine eigene Antwort",
  'Back to "{0}"': "Zurück zu „{0}“",
  "{0}": "{0}",
  'Does "{0}" end the case?': "Beendet „{0}“ den Fall?",
  'What comes after "{0}"?': "Was kommt nach „{0}“?",
  'What follows where the answer to "{0}" is {1}?': "Was folgt, wo die Antwort auf „{0}“ {1} ist?",
  'What follows from each answer to "{0}"?': "Was folgt aus jeder Antwort auf „{0}“?",
  'Where does it go on after "{0}"?': "Wo geht es nach „{0}“ weiter?",
  '"{0}" can come at any time: what becomes of the work that is under way then?':
    "„{0}“ kann jederzeit kommen: Was wird dann aus der Arbeit, die im Gange ist?",
  'Who does "{0}": {1}?': "Wer tut „{0}“: {1}?",
  'Who does "{0}"?': "Wer tut „{0}“?",
  'Which answer to "{0}" is "{1}"?': "Welche Antwort auf „{0}“ ist „{1}“?",
  "Does the case end after the {0} {1}?": "Endet der Fall nach: {0} {1}?",
  "What is done again here, and from where does it go on?":
    "Was wird hier noch einmal getan, und von wo geht es weiter?",
  'On which answer is "{0}" done again?': "Bei welcher Antwort wird „{0}“ noch einmal getan?",
};
