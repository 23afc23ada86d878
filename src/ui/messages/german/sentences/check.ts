/** What the check says, in German, by its English code. */
export const check = {
  "An ad-hoc sub-process holds activities and neither start nor end.":
    "Ein Ad-hoc-Teilprozess enthält Aktivitäten und weder Anfang noch Ende.",
  "{0} is done in any order, so it has no start and no end. Take these events out.":
    "{0} wird in beliebiger Reihenfolge getan und hat darum weder Anfang noch Ende. Nehmen Sie diese Ereignisse heraus.",
  "Take them out": "Herausnehmen",
  "The answers behind a decision are what the decision can come to.":
    "Die Antworten hinter einer Entscheidung sind, was die Entscheidung ergeben kann.",
  "The answer “{0}” at {1} is never given: {2} decides {3}, which comes to {4}.":
    "Die Antwort „{0}“ bei {1} wird nie gegeben: {2} entscheidet {3}, und das ergibt {4}.",
  "Make the answer “{0}”": "Die Antwort „{0}“ anlegen",
  "{0} can come to {1}, and {2} has no answer for that, so a case would stop there. Add the answer, or make one the default.":
    "{0} kann {1} ergeben, und {2} hat keine Antwort dafür; ein Fall bliebe dort stehen. Fügen Sie die Antwort hinzu, oder machen Sie eine zur üblichen.",
  "{0}{1}": "{0}{1}",
  "Every flow out of a decision is an answer.": "Jeder Fluss aus einer Entscheidung ist eine Antwort.",
  "A flow out of {0} has no name, so it is open when it is taken. Name it with the answer to the question.":
    "Ein Fluss aus {0} hat keinen Namen; es bleibt offen, wann er gegangen wird. Nennen Sie ihn mit der Antwort auf die Frage.",
  "all of them": "alle",
  "those that were taken": "die gegangenen",
  "none: each goes on by itself": "keinen: jeder geht für sich weiter",
  "Let it wait for {0}": "Warten lassen auf {0}",
  "No step runs twice because two ways meet without waiting for each other.":
    "Kein Schritt läuft doppelt, weil zwei Wege sich treffen, ohne aufeinander zu warten.",
  "what follows": "was folgt",
  "After {0} finish, {1} runs": "Nachdem {0} fertig sind, läuft {1}",
  "Here {0} can run": "Hier kann {0} laufen, und zwar",
  "{0} twice: {1} lets everything through as it comes, and two tokens can come in one case. Join the ways with the kind of gateway that parted them.":
    "{0} doppelt: {1} lässt alles durch, wie es kommt, und in einem Fall können zwei Marken kommen. Vereinen Sie die Wege mit der Art von Gateway, die sie geteilt hat.",
  "“{0}”": "„{0}“",
  "more than will ever come": "mehr, als je kommt",
  "what would come from {0}, and on this run never does": "was von {0} käme und in diesem Ablauf nie kommt",
  "No case gets stuck.": "Kein Fall bleibt stecken.",
  "A case can get stuck at {0}: it waits there for {1}. Let a join wait only for what the split before it really sends.":
    "Ein Fall kann bei {0} steckenbleiben: Er wartet dort auf {1}. Lassen Sie eine Vereinigung nur auf das warten, was die Teilung davor wirklich schickt.",
  "Every case can come to an end.": "Jeder Fall kann zu einem Ende kommen.",
  "Once a case comes to {0}, it can go on for ever and never end. Give the loop a way out.":
    "Kommt ein Fall zu {0}, kann er ewig weitergehen und nie enden. Geben Sie der Schleife einen Ausgang.",
  "Every step is reached by some case.": "Jeden Schritt erreicht irgendein Fall.",
  " and {0} more": " und {0} weitere",
  "No case ever reaches {0}{1}. Mend what keeps cases away, or take it out.":
    "Kein Fall erreicht je {0}{1}. Beheben Sie, was Fälle fernhält, oder nehmen Sie es heraus.",
  "Behaviour is known: all that can happen was looked at.":
    "Das Verhalten ist bekannt: Alles, was geschehen kann, wurde angesehen.",
  "{0} can be in more states than can be looked at ({1} were), so nobody can say whether a case gets stuck or runs a step twice. Make blocks of what is tangled: each split with its join.":
    "{0} kann in mehr Zuständen sein, als angesehen werden können ({1} wurden es); niemand kann sagen, ob ein Fall steckenbleibt oder einen Schritt doppelt tut. Machen Sie Blöcke aus dem Verwickelten: jede Teilung mit ihrer Vereinigung.",
  "This process": "Dieser Prozess",
  "An event at an edge sits on an activity of the same process.":
    "Ein Randereignis sitzt an einer Aktivität desselben Prozesses.",
  "{0} is an event at an edge, but it sits on no activity of its process, so nothing can set it off. Delete it and attach one to the activity it belongs to.":
    "{0} ist ein Randereignis, sitzt aber an keiner Aktivität seines Prozesses; nichts kann es auslösen. Löschen Sie es, und heften Sie eines an die Aktivität, zu der es gehört.",
  "Delete this event": "Dieses Ereignis löschen",
  "A call activity names the process it calls.": "Eine Aufrufaktivität nennt den Prozess, den sie aufruft.",
  "{0} is drawn as a call but does not say which process it calls. Choose the process in the tray, or make it a task.":
    "{0} ist als Aufruf gezeichnet, sagt aber nicht, welchen Prozess es aufruft. Wählen Sie den Prozess in der Ablage, oder machen Sie eine Aufgabe daraus.",
  "Only a transaction is cancelled.": "Nur eine Transaktion wird abgebrochen.",
  "{0} cancels, which only a transaction can be. Make the sub-process a transaction, or use an error.":
    "{0} bricht ab, was nur bei einer Transaktion geht. Machen Sie den Teilprozess zur Transaktion, oder nehmen Sie einen Fehler.",
  "No two pools wait for each other's message.": "Keine zwei Pools warten gegenseitig auf ihre Nachricht.",
  "{0} at {1}": "{0} bei {1}",
  "Pools wait for each other's message for ever: {0}. Let one of them send before it waits.":
    "Pools warten ewig gegenseitig auf ihre Nachricht: {0}. Lassen Sie einen davon senden, bevor er wartet.",
  "A message that a pool waits for is sent on every run of the pool it comes from.":
    "Eine Nachricht, auf die ein Pool wartet, wird in jedem Ablauf des Pools gesendet, von dem sie kommt.",
  "{0} waits for a message that {1} does not send on this run: it ends, or never begins, without it. Send it on every way, or let the wait end by a deadline.":
    "{0} wartet auf eine Nachricht, die {1} in diesem Ablauf nicht sendet: Er endet ohne sie oder beginnt nie. Senden Sie sie auf jedem Weg, oder lassen Sie das Warten mit einer Frist enden.",
  "its sender": "ihr Absender",
  "that one of them is begun again while it is under way": "dass einer davon noch einmal beginnt, während er läuft",
  "that messages pile up unread": "dass sich Nachrichten ungelesen stapeln",
  "more states than can be looked at": "mehr Zustände, als angesehen werden können",
  "What pools do together is known: all that can happen between them was looked at.":
    "Was Pools zusammen tun, ist bekannt: Alles, was zwischen ihnen geschehen kann, wurde angesehen.",
  "Whether {0} can wait for each other for ever was looked at in part. Left out: {1}.":
    "Ob {0} ewig aufeinander warten können, wurde nur zum Teil angesehen. Ausgelassen: {1}.",
  "What can be undone has one activity that undoes it, outside the flow.":
    "Was rückgängig gemacht werden kann, hat eine Aktivität dafür, außerhalb des Flusses.",
  "{0} says that its step can be undone, but not by what. Lead an association from it to one activity that is for compensation.":
    "{0} sagt, dass sein Schritt rückgängig gemacht werden kann, aber nicht, womit. Führen Sie eine Assoziation zu einer Aktivität, die zur Kompensation da ist.",
  "{0} undoes something, so it stands outside the flow; but sequence flows lead to it or from it. Take them away.":
    "{0} macht etwas rückgängig und steht darum außerhalb des Flusses; doch Sequenzflüsse führen hin oder weg. Nehmen Sie sie weg.",
  "Take the flows away": "Die Flüsse wegnehmen",
  "A condition stands only where something is decided.": "Eine Bedingung steht nur, wo etwas entschieden wird.",
  "A flow of {0} is its default and has a condition. The default is taken when no condition holds, so its own is never asked. Take it away.":
    "Ein Fluss von {0} ist die übliche Antwort und hat eine Bedingung. Die übliche wird gegangen, wenn keine Bedingung gilt; ihre eigene wird nie gefragt. Nehmen Sie sie weg.",
  "A flow of {0} has a condition, but nothing is decided there: all that leaves it is taken. Take the condition away, or use a decision.":
    "Ein Fluss von {0} hat eine Bedingung, doch dort wird nichts entschieden: Alles Abgehende wird gegangen. Nehmen Sie die Bedingung weg, oder nehmen Sie eine Entscheidung.",
  "Take the condition away": "Die Bedingung wegnehmen",
  "Every answer of a decision but the default has a condition.":
    "Jede Antwort einer Entscheidung außer der üblichen hat eine Bedingung.",
  "The answer {0} of {1} has no condition, so developers have to guess when it is taken. Write the condition in the tray, in plain words if need be.":
    "Die Antwort {0} von {1} hat keine Bedingung; die Entwicklung muss raten, wann sie gilt. Schreiben Sie die Bedingung in die Ablage, zur Not in einfachen Worten.",
  "without a name": "ohne Namen",
  "A condition can be decided by a machine: FEEL over data that is there.":
    "Über eine Bedingung kann eine Maschine entscheiden: FEEL über Daten, die es gibt.",
  "The condition “{0}” at {1} is words for people, so no engine can decide by it. Write it in FEEL, such as “rated power > 10”.":
    "Die Bedingung „{0}“ bei {1} sind Worte für Menschen; keine Maschine kann danach entscheiden. Schreiben Sie sie in FEEL, etwa „rated power > 10“.",
  "The condition “{0}” at {1} asks for {2}, which no data object here holds. Draw the data, or use a name that is there.":
    "Die Bedingung „{0}“ bei {1} fragt nach {2}, was hier kein Datenobjekt enthält. Zeichnen Sie die Daten, oder nehmen Sie einen Namen, den es gibt.",
  "What an element names is in the file.": "Was ein Element nennt, steht in der Datei.",
  "{0} names “{1}” as its {2}, but there is no such element in the model. Whoever takes the file over will stumble over it. {3}":
    "{0} nennt „{1}“ als {2}, doch ein solches Element gibt es im Modell nicht. Wer die Datei übernimmt, stolpert darüber. {3}",
  "Draw that end again, or delete the connection.": "Zeichnen Sie dieses Ende neu, oder löschen Sie die Verbindung.",
  "Choose another one, or take the reference out.": "Wählen Sie ein anderes, oder nehmen Sie den Verweis heraus.",
  "Delete this {0}": "Löschen: {0}",
  "Data is written before it is needed.": "Daten sind geschrieben, bevor sie gebraucht werden.",
  needs: "braucht",
  "decides by": "entscheidet nach",
  "{0} {1} {2}, and a case can come there before anything has written it. Write it earlier, or let the way that misses it go elsewhere.":
    "{0} {1} {2}, und ein Fall kann dorthin kommen, bevor es geschrieben ist. Schreiben Sie es früher, oder führen Sie den Weg ohne es anderswohin.",
  "Data that is written is used.": "Geschriebene Daten werden gebraucht.",
  "{0} is written by {1} and nothing reads it. Say who needs it, or leave it out.":
    "{0} wird von {1} geschrieben, und nichts liest es. Sagen Sie, wer es braucht, oder lassen Sie es weg.",
  "What a decision needs is data of the process.": "Was eine Entscheidung braucht, sind Daten des Prozesses.",
  "{0} decides {1}, which needs {2}, and no data here is called so. Add it to the data, or say in the tray which data it is.":
    "{0} entscheidet {1}, und das braucht {2}; keine Daten heißen hier so. Nehmen Sie es in die Daten auf, oder sagen Sie in der Ablage, welche Daten es sind.",
  "A decision asks a question.": "Eine Entscheidung stellt eine Frage.",
  "A decision has no name, so readers see that something is decided but not what. Name it with the question that is asked there.":
    "Eine Entscheidung hat keinen Namen; man sieht, dass entschieden wird, aber nicht, was. Nennen Sie sie mit der Frage, die dort gestellt wird.",
  "A default flow leaves the element that names it.": "Die übliche Antwort geht von dem Element ab, das sie nennt.",
  "{0} has a default flow that leaves another element, so it has none of its own. Choose one of its own flows.":
    "{0} hat als übliche Antwort einen Fluss, der von einem anderen Element abgeht, also keine eigene. Wählen Sie einen der eigenen Flüsse.",
  "Take the wrong default away": "Die falsche übliche Antwort wegnehmen",
  "A decision has a default answer.": "Eine Entscheidung hat eine übliche Antwort.",
  "{0} has no default answer, so a case for which no condition holds is stuck there. Make the most common answer the default.":
    "{0} hat keine übliche Antwort; ein Fall, für den keine Bedingung gilt, bleibt dort stecken. Machen Sie die häufigste Antwort zur üblichen.",
  "Make “{0}” the default": "„{0}“ zur üblichen Antwort machen",
  "Make the flow without a name the default": "Den Fluss ohne Namen zur üblichen Antwort machen",
  "Every id stands for one element.": "Jede Kennung steht für ein Element.",
  "The id “{0}” is given twice in the file, the second time in line {1}. References to it can mean either. Give one of the two another id where the file comes from.":
    "Die Kennung „{0}“ ist in der Datei zweimal vergeben, das zweite Mal in Zeile {1}. Verweise darauf können beide meinen. Geben Sie einem der beiden eine andere, dort, woher die Datei kommt.",
  "Every lane has something to do.": "Jede Bahn hat etwas zu tun.",
  "{0} has no step, so it only takes up room. Move the steps of this role into it, or delete the lane.":
    "{0} hat keinen Schritt und nimmt nur Platz weg. Schieben Sie die Schritte dieser Rolle hinein, oder löschen Sie die Bahn.",
  "Delete this lane": "Diese Bahn löschen",
  "A sub-process has something inside.": "Ein Teilprozess hat etwas in sich.",
  "{0} is drawn as a sub-process, but nothing is inside. Open it and draw its steps, or make it a task until they are known.":
    "{0} ist als Teilprozess gezeichnet, doch darin ist nichts. Öffnen Sie ihn und zeichnen Sie seine Schritte, oder machen Sie eine Aufgabe daraus, bis sie bekannt sind.",
  "A process ends with an end event.": "Ein Prozess endet mit einem Endereignis.",
  "{0} has a start but no end event, so it is open what it achieves. Add an end event for each result and name it after the state reached.":
    "{0} hat einen Anfang, aber kein Endereignis; es bleibt offen, was erreicht wird. Fügen Sie für jedes Ergebnis ein Endereignis an, und nennen Sie es nach dem erreichten Zustand.",
  "This {0}": "Dies ({0})",
  "Where there are several ends, each names the state reached.":
    "Wo es mehrere Enden gibt, nennt jedes den erreichten Zustand.",
  "One of several end events has no name, so readers cannot tell the results apart. Name it after the state reached, such as “Plant connected”.":
    "Eines von mehreren Endereignissen hat keinen Namen; die Ergebnisse sind nicht zu unterscheiden. Nennen Sie es nach dem erreichten Zustand, etwa „Anlage angeschlossen“.",
  "An event-based gateway waits for two events or more, each reached only through it.":
    "Ein ereignisbasiertes Gateway wartet auf zwei oder mehr Ereignisse, jedes nur durch es erreicht.",
  "{0} waits for what happens first, but has {1} to wait for. Add the other events behind it, or use a single event instead.":
    "{0} wartet auf das, was zuerst geschieht, hat aber {1}, worauf zu warten wäre. Fügen Sie die anderen Ereignisse dahinter an, oder nehmen Sie stattdessen ein einzelnes.",
  nothing: "nichts",
  "only one event": "nur ein Ereignis",
  "An event behind an event-based gateway may be reached only from there, but another flow leads to it too. Lead that flow to the gateway itself.":
    "Ein Ereignis hinter einem ereignisbasierten Gateway darf nur von dort erreicht werden, doch noch ein Fluss führt hin. Führen Sie ihn zum Gateway selbst.",
  "An event has a trigger the standard allows where the event stands.":
    "Ein Ereignis hat einen Auslöser, den der Standard an seiner Stelle erlaubt.",
  "{0} has {1}, which the standard does not allow for this event ({2}). No engine will run it. Choose another trigger.":
    "{0} hat {1}, was der Standard für dieses Ereignis nicht erlaubt ({2}). Keine Maschine führt es aus. Wählen Sie einen anderen Auslöser.",
  "no trigger": "keinen Auslöser",
  "the trigger {0}": "den Auslöser {0}",
  "No flow leads into or out of an event sub-process.": "Kein Fluss führt in einen Ereignis-Teilprozess oder heraus.",
  "{0} begins when its event happens, so no flow may lead into it or out of it. Take the flows away, or make it a sub-process in the flow.":
    "{0} beginnt, wenn sein Ereignis eintritt; kein Fluss darf hinein- oder herausführen. Nehmen Sie die Flüsse weg, oder machen Sie einen Teilprozess im Fluss daraus.",
  "Every part of a file can be understood.": "Jeder Teil einer Datei kann verstanden werden.",
  "Line {0} has {1}, which is no value the standard knows there. It is kept, but nothing here goes by it. Set it anew.":
    "Zeile {0} hat {1}, was der Standard dort nicht kennt. Es bleibt erhalten, doch nichts richtet sich danach. Setzen Sie es neu.",
  "Line {0} has a <{1}> where the standard has no place for one. It is kept as it is, but not shown. Move it to where it belongs.":
    "Zeile {0} hat ein <{1}>, wo der Standard keinen Platz dafür hat. Es bleibt, wie es ist, wird aber nicht gezeigt. Setzen Sie es dorthin, wo es hingehört.",
  "Flows lead from left to right, loops aside.": "Flüsse führen von links nach rechts, außer in Schleifen.",
  "A flow leads from right to left though it closes no loop, so readers take it for one. Move what it leads to, or let the page be tidied.":
    "Ein Fluss führt von rechts nach links, obwohl er keine Schleife schließt, und wird für eine gehalten. Verschieben Sie, wohin er führt, oder lassen Sie die Seite ordnen.",
  "Tidy the page": "Die Seite ordnen",
  "A flow has a source and a target.": "Ein Fluss hat Anfang und Ziel.",
  "This {0} has no {1}, so it says nothing. Draw that end again, or delete it.":
    "Hier ({0}) fehlt: {1}. So sagt es nichts. Zeichnen Sie dieses Ende neu, oder löschen Sie es.",
  source: "Anfang",
  target: "Ziel",
  "Sequence flows do not cross.": "Sequenzflüsse kreuzen sich nicht.",
  "Flows cross {0} times on one page. Each crossing costs readers time; move steps, or let the page be tidied.":
    "Auf einer Seite kreuzen sich Flüsse {0}-mal. Jede Kreuzung kostet beim Lesen Zeit; verschieben Sie Schritte, oder lassen Sie die Seite ordnen.",
  "Exclusive and parallel gateways are enough.": "Exklusive und parallele Gateways genügen.",
  "{0} takes any number of its ways, which readers often misunderstand. See whether exclusive and parallel gateways say the same.":
    "{0} geht beliebig viele seiner Wege, was oft missverstanden wird. Sehen Sie, ob exklusive und parallele Gateways dasselbe sagen.",
  "What is done for each says for how many.": "Was für jedes getan wird, sagt, für wie viele.",
  "{0} is done for each of several, but does not say of how many or of what. Give a number or the data in the tray.":
    "{0} wird für jedes von mehreren getan, sagt aber nicht, von wie vielen oder wovon. Nennen Sie in der Ablage eine Zahl oder die Daten.",
  "A link leads to exactly one other end of its name.": "Ein Verweis führt zu genau einem anderen Ende seines Namens.",
  "{0} is a link {1}: no other end on this page has the name “{2}”. Give both ends one name.":
    "{0} ist ein Verweis, {1}: Kein anderes Ende auf dieser Seite heißt „{2}“. Geben Sie beiden Enden denselben Namen.",
  "that leads nowhere": "der nirgendwohin führt",
  "that nothing leads to": "zu dem nichts führt",
  "{0} links named “{1}” can be led to, so nobody knows which is meant. Give each a name of its own.":
    "Zu {0} Verweisen namens „{1}“ kann geführt werden; niemand weiß, welcher gemeint ist. Geben Sie jedem einen eigenen Namen.",
  "Message flows join two pools at ends that can send and receive.":
    "Nachrichtenflüsse verbinden zwei Pools an Enden, die senden und empfangen können.",
  "Delete this message flow": "Diesen Nachrichtenfluss löschen",
  "A message that is waited for is sent by another pool.":
    "Eine Nachricht, auf die gewartet wird, sendet ein anderer Pool.",
  "{0} waits for a message, but no message flow says who sends it. Lead one to it from the pool it comes from.":
    "{0} wartet auf eine Nachricht, doch kein Nachrichtenfluss sagt, wer sie sendet. Führen Sie einen von dem Pool hin, von dem sie kommt.",
  "{0} waits for a message that is never sent: no case of {1} comes to {2}. Mend the way that leads there.":
    "{0} wartet auf eine Nachricht, die nie gesendet wird: Kein Fall von {1} kommt zu {2}. Beheben Sie den Weg dorthin.",
  "the other pool": "dem anderen Pool",
  "what sends it": "dem, was sie sendet",
  "An event names its message, signal, error or escalation.":
    "Ein Ereignis nennt seine Nachricht, sein Signal, seinen Fehler oder seine Eskalation.",
  "{0} does not say which {1} it is about, so an engine cannot tell it from others. Name it in the tray.":
    "{0} sagt nicht, worum es geht ({1}); eine Maschine kann es nicht von anderen unterscheiden. Nennen Sie es in der Ablage.",
  "A gateway splits or joins.": "Ein Gateway teilt oder vereint.",
  "{0} has one flow in and one out, so it neither splits nor joins. Readers look for the other branch. Add the branch, or take the gateway out.":
    "{0} hat einen Fluss hinein und einen heraus, teilt also nicht und vereint nicht. Man sucht den anderen Zweig. Fügen Sie ihn an, oder nehmen Sie das Gateway heraus.",
  "Take the gateway out": "Das Gateway herausnehmen",
  "Lead {0} to it": "{0} dorthin führen",
  "Delete this element": "Dieses Element löschen",
  "Every step is reached by a flow.": "Zu jedem Schritt führt ein Fluss.",
  "No flow leads to {0}. Connect it from the step before it, or delete it.":
    "Kein Fluss führt zu {0}. Verbinden Sie es mit dem Schritt davor, oder löschen Sie es.",
  "Lead it to {0}": "Zu {0} führen",
  "Add an end event behind it": "Ein Endereignis dahinter anfügen",
  "Every step but an end event leads on.": "Jeder Schritt außer einem Endereignis führt weiter.",
  "{0} leads nowhere. It counts as an end, but readers cannot tell whether one was meant. Connect it to the next step, or end it with an end event.":
    "{0} führt nirgendwohin. Es gilt als Ende, doch man sieht nicht, ob eines gemeint war. Verbinden Sie es mit dem nächsten Schritt, oder lassen Sie es mit einem Endereignis enden.",
  "What is in the model is on a page.": "Was im Modell ist, ist auf einer Seite.",
  "{0} is in the model but on no page, so nobody sees it. Open the page of its process and draw it, or delete it.":
    "{0} ist im Modell, aber auf keiner Seite; niemand sieht es. Öffnen Sie die Seite seines Prozesses und zeichnen Sie es, oder löschen Sie es.",
  "A pool of an outside party has message flows with the process.":
    "Der Pool eines Außenstehenden hat Nachrichtenflüsse mit dem Prozess.",
  "{0} is drawn as an outside party, but sends and receives nothing. Readers will ask what it is there for. Draw its messages, or delete the pool.":
    "{0} ist als Außenstehender gezeichnet, sendet und empfängt aber nichts. Man wird fragen, wozu er da ist. Zeichnen Sie seine Nachrichten, oder löschen Sie den Pool.",
  "Delete this pool": "Diesen Pool löschen",
  "The name of a decision is a question.": "Der Name einer Entscheidung ist eine Frage.",
  "“{0}” names a decision but is no question; a gateway decides nothing, it only asks. Put it as a question that its flows answer, and do the work in a step before it.":
    "„{0}“ nennt eine Entscheidung, ist aber keine Frage; ein Gateway entscheidet nichts, es fragt nur. Stellen Sie es als Frage, auf die seine Flüsse antworten, und tun Sie die Arbeit in einem Schritt davor.",
  "Call it “{0}?”": "„{0}?“ nennen",
  "Every step that people do has somebody responsible.":
    "Jeder Schritt, den Menschen tun, hat jemanden, der ihn ausführt.",
  "Nobody is responsible for {0}. Neither forecast nor work list can place it. Put it into a lane that stands for a role, or assign a role in the tray.":
    "Niemand führt {0} aus. Weder Vorhersage noch Arbeitsliste können es zuordnen. Setzen Sie es in eine Bahn, die für eine Rolle steht, oder weisen Sie in der Ablage eine Rolle zu.",
  "Two steps of one process have two names.": "Zwei Schritte eines Prozesses haben zwei Namen.",
  "{0} steps are called “{1}”. In lists and figures nobody can tell them apart. If they are the same work, make it a process of its own and call it; else say in the names how they differ.":
    "{0} Schritte heißen „{1}“. In Listen und Zahlen sind sie nicht zu unterscheiden. Ist es dieselbe Arbeit, machen Sie einen eigenen Prozess daraus, und rufen Sie ihn auf; sonst sagen Sie in den Namen, worin sie sich unterscheiden.",
  "Sequence flows join what the standard lets them join.":
    "Sequenzflüsse verbinden, was der Standard sie verbinden lässt.",
  "Delete this flow": "Diesen Fluss löschen",
  "A step that runs by itself says what runs.": "Ein Schritt, der von selbst läuft, sagt, was läuft.",
  "{0} is done by a system, but names no operation and no message. Bind it to the operation of a service.":
    "{0} wird durch ein System getan, nennt aber keine Operation und keine Nachricht. Binden Sie es an die Operation eines Dienstes.",
  "{0} is a script, but holds none. Write it, or use another kind of step.":
    "{0} ist ein Skript, enthält aber keines. Schreiben Sie es, oder nehmen Sie eine andere Art von Schritt.",
  "A process has one end for each outcome.": "Ein Prozess hat ein Ende für jedes Ergebnis.",
  "{0} end events are named “{1}”. One outcome has one end; lead the paths to it together.":
    "{0} Endereignisse heißen „{1}“. Ein Ergebnis hat ein Ende; führen Sie die Wege dorthin zusammen.",
  "A process has one start.": "Ein Prozess hat einen Anfang.",
  "{0} has {1} start events. Several triggers often mean several processes; see whether each deserves its own. If they are alternatives, this is fine.":
    "{0} hat {1} Startereignisse. Mehrere Auslöser bedeuten oft mehrere Prozesse; sehen Sie, ob jeder einen eigenen verdient. Stehen sie zur Wahl, ist es gut so.",
  "Shapes do not cover each other.": "Formen verdecken einander nicht.",
  "Two shapes cover each other, so one of them cannot be read. Move one away, or let the page be tidied.":
    "Zwei Formen verdecken einander; eine davon ist nicht zu lesen. Schieben Sie eine weg, oder lassen Sie die Seite ordnen.",
  "One thing has one spelling.": "Ein Ding hat eine Schreibweise.",
  "“{0}” and “{1}” are likely one thing in two spellings. Choose one of them.":
    "„{0}“ und „{1}“ sind wohl dasselbe in zwei Schreibweisen. Wählen Sie eine.",
  "One gateway joins or splits, not both.": "Ein Gateway vereint oder teilt, nicht beides.",
  "{0} joins several flows and splits them again at once, which is easily misread. Use one gateway to join and another behind it to split.":
    "{0} vereint mehrere Flüsse und teilt sie gleich wieder, was leicht falsch gelesen wird. Nehmen Sie ein Gateway zum Vereinen und ein zweites dahinter zum Teilen.",
  "A process begins with a start event.": "Ein Prozess beginnt mit einem Startereignis.",
  "{0} has no start event, so nobody can see what sets it off. Place one before the first step and name it after what happens.":
    "{0} hat kein Startereignis; niemand sieht, was ihn auslöst. Setzen Sie eines vor den ersten Schritt, und nennen Sie es nach dem, was geschieht.",
  "A start event names what happens.": "Ein Startereignis nennt, was geschieht.",
  "The start event has no name, so it is open what sets the process off. Name it after what happens, such as “Application received”.":
    "Das Startereignis hat keinen Namen; es bleibt offen, was den Prozess auslöst. Nennen Sie es nach dem, was geschieht, etwa „Antrag eingegangen“.",
  "Every activity has a name.": "Jede Aktivität hat einen Namen.",
  "A {0} has no name, so nobody can tell what is done there. Name it with a verb and an object, such as “Check feeder capacity”.":
    "Ohne Namen: {0}. Niemand weiß, was dort getan wird. Nennen Sie es mit Verb und Objekt, etwa „Anschlussleistung prüfen“.",
  "A sub-process begins without a trigger, an event sub-process with exactly one.":
    "Ein Teilprozess beginnt ohne Auslöser, ein Ereignis-Teilprozess mit genau einem.",
  "{0} begins when something happens, so it needs exactly one start event with a trigger; it has {1}. Say what it begins with.":
    "{0} beginnt, wenn etwas geschieht, und braucht genau ein Startereignis mit Auslöser; es sind {1}. Sagen Sie, womit er beginnt.",
  "{0} has a trigger inside {1}, which begins when the flow comes to it. Use a start without a trigger, or make it an event sub-process.":
    "{0} hat einen Auslöser, steht aber in etwas ({1}), das beginnt, wenn der Fluss dorthin kommt. Nehmen Sie einen Start ohne Auslöser, oder machen Sie einen Ereignis-Teilprozess daraus.",
  "What is thrown inside a sub-process is caught, and what is caught is thrown.":
    "Was in einem Teilprozess ausgelöst wird, wird aufgefangen, und was aufgefangen wird, wird ausgelöst.",
  "{0} waits for an {1} that nothing inside ever throws, so what follows it never happens. Throw it inside, or take the event away.":
    "{0} wartet auf etwas ({1}), was darin nie ausgelöst wird; was folgt, geschieht nie. Lösen Sie es darin aus, oder nehmen Sie das Ereignis weg.",
  "{0} throws an {1} that nobody catches: {2}. Put an event for it at the edge of the sub-process.":
    "{0} löst etwas aus ({1}), was niemand auffängt: {2}. Setzen Sie ein Ereignis dafür an den Rand des Teilprozesses.",
  "the whole case ends there": "der ganze Fall endet dort",
  "it is lost": "es geht verloren",
  "A timer says when.": "Eine Zeit sagt, wann.",
  "{0} does not say when it goes off. Nobody can run or forecast it. Enter a date, a duration or a cycle in the tray.":
    "{0} sagt nicht, wann es auslöst. Niemand kann es ausführen oder vorhersagen. Tragen Sie in der Ablage ein Datum, eine Dauer oder eine Wiederkehr ein.",
  "This timer": "Diese Zeit",
  "A timer can be read by a machine: ISO 8601.": "Eine Zeit kann eine Maschine lesen: ISO 8601.",
  "{0} goes off at “{1}”, which no engine can read. Type it again in the tray, which makes ISO 8601 of most words.":
    "{0} löst bei „{1}“ aus, was keine Maschine lesen kann. Schreiben Sie es in der Ablage neu; sie macht aus den meisten Worten ISO 8601.",
  "A page has at most 50 nodes.": "Eine Seite hat höchstens 50 Knoten.",
  "One page shows {0} steps, events and gateways. Above 50, errors become likely and readers give up. Move a part that has a name of its own into a sub-process.":
    "Eine Seite zeigt {0} Schritte, Ereignisse und Gateways. Über 50 werden Fehler wahrscheinlich, und man gibt beim Lesen auf. Verlegen Sie einen Teil mit eigenem Namen in einen Teilprozess.",
  "A step is named with a verb and an object.": "Ein Schritt heißt mit Verb und Objekt.",
  "“{0}” does not say what is done to what. Use a verb and an object, such as “Check feeder capacity” instead of “Capacity check”.":
    "„{0}“ sagt nicht, was womit getan wird. Nehmen Sie Verb und Objekt, etwa „Anschlussleistung prüfen“ statt „Leistungsprüfung“.",
  "An event is named by what has happened.": "Ein Ereignis heißt nach dem, was geschehen ist.",
  "“{0}” reads like something to do, but an event is something that has happened. Say it so: “Application received” instead of “Receive application”.":
    "„{0}“ liest sich wie etwas zu Tuendes, doch ein Ereignis ist etwas Geschehenes. Sagen Sie es so: „Antrag eingegangen“ statt „Antrag annehmen“.",
};
