/**
 * BPMN 2.0's collaboration and process elements as one table: attributes, and content in schema order.
 * Reading, writing, types, Zod schemas, references and deletion all follow from it, so an element is stated once.
 *
 * Source: Business Process Model and Notation 2.0 (formal/2011-01-03), the class tables of chapters 8 to 10 and the schema
 * files named in its chapter 15; order of content as in the schema. From memory, checked against `bpmn20.rng` in the tests.
 * Documentation and extension elements may stand first in every element; they are not repeated here. The attribute "type" of
 * three elements is the field `typeRef`, because `type` tells the kind of every element.
 */
import {
  boolean,
  expression,
  idref,
  integer,
  localRefs,
  many,
  one,
  oneOf,
  oneTagged,
  qref,
  ref,
  refs,
  string,
  text,
} from "./fields";

const eventDefinitionTypes = [
  "messageEventDefinition",
  "timerEventDefinition",
  "errorEventDefinition",
  "escalationEventDefinition",
  "signalEventDefinition",
  "conditionalEventDefinition",
  "linkEventDefinition",
  "compensateEventDefinition",
  "cancelEventDefinition",
  "terminateEventDefinition",
] as const;
const flowElementTypes = [
  "task",
  "manualTask",
  "userTask",
  "serviceTask",
  "sendTask",
  "receiveTask",
  "scriptTask",
  "businessRuleTask",
  "subProcess",
  "transaction",
  "adHocSubProcess",
  "callActivity",
  "startEvent",
  "endEvent",
  "intermediateCatchEvent",
  "intermediateThrowEvent",
  "implicitThrowEvent",
  "boundaryEvent",
  "exclusiveGateway",
  "inclusiveGateway",
  "parallelGateway",
  "complexGateway",
  "eventBasedGateway",
  "sequenceFlow",
  "dataObject",
  "dataObjectReference",
  "dataStoreReference",
] as const;

const artifacts = many("association", "group", "textAnnotation");
const flowElements = many(...flowElementTypes);
const resourceRoles = many("resourceRole", "performer", "humanPerformer", "potentialOwner");
const conversationNodes = many("conversation", "subConversation", "callConversation");
const expressionChild = one("expression", "formalExpression");

const named = { name: string } as const;
const flowElement = {
  auditing: one("auditing"),
  monitoring: one("monitoring"),
  categoryValueRef: refs,
} as const;
const flowNode = { ...flowElement, incoming: refs, outgoing: refs } as const;

const activityAttributes = {
  ...named,
  isForCompensation: boolean,
  startQuantity: integer,
  completionQuantity: integer,
  default: idref,
} as const;
const activity = {
  ...flowNode,
  ioSpecification: one("ioSpecification"),
  properties: many("property"),
  dataInputAssociations: many("dataInputAssociation"),
  dataOutputAssociations: many("dataOutputAssociation"),
  resourceRoles,
  loopCharacteristics: one("standardLoopCharacteristics", "multiInstanceLoopCharacteristics"),
} as const;
const subProcessAttributes = { ...activityAttributes, triggeredByEvent: boolean } as const;
const subProcess = { ...activity, laneSets: many("laneSet"), flowElements, artifacts } as const;

const catchEvent = {
  ...flowNode,
  properties: many("property"),
  dataOutputs: many("dataOutput"),
  dataOutputAssociations: many("dataOutputAssociation"),
  outputSet: one("outputSet"),
  eventDefinitions: many(...eventDefinitionTypes),
  eventDefinitionRef: refs,
} as const;
const throwEvent = {
  ...flowNode,
  properties: many("property"),
  dataInputs: many("dataInput"),
  dataInputAssociations: many("dataInputAssociation"),
  inputSet: one("inputSet"),
  eventDefinitions: many(...eventDefinitionTypes),
  eventDefinitionRef: refs,
} as const;
const catchAttributes = { ...named, parallelMultiple: boolean } as const;

const gatewayAttributes = {
  ...named,
  gatewayDirection: oneOf("Unspecified", "Converging", "Diverging", "Mixed"),
} as const;

const callable = {
  supportedInterfaceRef: refs,
  ioSpecification: one("ioSpecification"),
  ioBindings: many("ioBinding"),
} as const;
const globalTask = { ...callable, resourceRoles } as const;
const dataItem = { ...named, itemSubjectRef: qref, isCollection: boolean } as const;
const resourceRole = {
  resourceRef: ref,
  resourceParameterBindings: many("resourceParameterBinding"),
  resourceAssignmentExpression: one("resourceAssignmentExpression"),
} as const;
const dataAssociation = {
  sourceRef: localRefs,
  targetRef: { ...ref, qname: false },
  transformation: expression,
  assignments: many("assignment"),
} as const;
const conversationNode = {
  participantRef: refs,
  messageFlowRef: refs,
  correlationKeys: many("correlationKey"),
} as const;

const nothing = {} as const;

export const metamodel = {
  definitions: {
    attributes: {
      ...named,
      targetNamespace: string,
      expressionLanguage: string,
      typeLanguage: string,
      exporter: string,
      exporterVersion: string,
    },
    content: {
      imports: many("import"),
      extensions: many("extension"),
      rootElements: many(
        ...eventDefinitionTypes,
        "process",
        "collaboration",
        "category",
        "correlationProperty",
        "dataStore",
        "endPoint",
        "error",
        "escalation",
        "globalTask",
        "globalManualTask",
        "globalUserTask",
        "globalBusinessRuleTask",
        "globalScriptTask",
        "interface",
        "itemDefinition",
        "message",
        "partnerEntity",
        "partnerRole",
        "resource",
        "signal",
      ),
      relationships: many("relationship"),
    },
  },
  import: { attributes: { namespace: string, location: string, importType: string }, content: nothing },
  extension: { attributes: { definition: string, mustUnderstand: boolean }, content: nothing },
  relationship: {
    attributes: { typeRef: string, direction: oneOf("None", "Forward", "Backward", "Both") },
    content: { source: refs, target: refs },
  },

  // Collaboration
  collaboration: {
    attributes: { ...named, isClosed: boolean },
    content: {
      participants: many("participant"),
      messageFlows: many("messageFlow"),
      artifacts,
      conversationNodes,
      conversationAssociations: many("conversationAssociation"),
      participantAssociations: many("participantAssociation"),
      messageFlowAssociations: many("messageFlowAssociation"),
      correlationKeys: many("correlationKey"),
      choreographyRef: refs,
      conversationLinks: many("conversationLink"),
    },
  },
  participant: {
    attributes: { ...named, processRef: qref },
    content: { interfaceRef: refs, endPointRef: refs, participantMultiplicity: one("participantMultiplicity") },
  },
  participantMultiplicity: { attributes: { minimum: integer, maximum: integer }, content: nothing },
  messageFlow: { attributes: { ...named, sourceRef: qref, targetRef: qref, messageRef: qref }, content: nothing },
  conversation: { attributes: named, content: conversationNode },
  subConversation: { attributes: named, content: { ...conversationNode, conversationNodes } },
  callConversation: {
    attributes: { ...named, calledCollaborationRef: qref },
    content: { ...conversationNode, participantAssociations: many("participantAssociation") },
  },
  conversationLink: { attributes: { ...named, sourceRef: qref, targetRef: qref }, content: nothing },
  conversationAssociation: {
    attributes: { innerConversationNodeRef: qref, outerConversationNodeRef: qref },
    content: nothing,
  },
  participantAssociation: { attributes: nothing, content: { innerParticipantRef: ref, outerParticipantRef: ref } },
  messageFlowAssociation: {
    attributes: { innerMessageFlowRef: qref, outerMessageFlowRef: qref },
    content: nothing,
  },
  correlationKey: { attributes: named, content: { correlationPropertyRef: refs } },
  correlationProperty: {
    attributes: { ...named, typeRef: qref },
    content: { retrievals: many("correlationPropertyRetrievalExpression") },
  },
  correlationPropertyRetrievalExpression: { attributes: { messageRef: qref }, content: { messagePath: expression } },
  correlationSubscription: {
    attributes: { correlationKeyRef: qref },
    content: { bindings: many("correlationPropertyBinding") },
  },
  correlationPropertyBinding: { attributes: { correlationPropertyRef: qref }, content: { dataPath: expression } },

  // Process and lanes
  process: {
    attributes: {
      ...named,
      processType: oneOf("None", "Public", "Private"),
      isClosed: boolean,
      isExecutable: boolean,
      definitionalCollaborationRef: qref,
    },
    content: {
      ...callable,
      auditing: one("auditing"),
      monitoring: one("monitoring"),
      properties: many("property"),
      laneSets: many("laneSet"),
      flowElements,
      artifacts,
      resourceRoles,
      correlationSubscriptions: many("correlationSubscription"),
      supports: refs,
    },
  },
  laneSet: { attributes: named, content: { lanes: many("lane") } },
  lane: {
    attributes: { ...named, partitionElementRef: qref },
    content: {
      partitionElement: oneTagged("partitionElement", "partitionElement"),
      flowNodeRef: localRefs,
      childLaneSet: oneTagged("childLaneSet", "laneSet"),
    },
  },
  partitionElement: { attributes: nothing, content: nothing },
  auditing: { attributes: nothing, content: nothing },
  monitoring: { attributes: nothing, content: nothing },

  // Activities
  task: { attributes: activityAttributes, content: activity },
  manualTask: { attributes: activityAttributes, content: activity },
  userTask: {
    attributes: { ...activityAttributes, implementation: string },
    content: { ...activity, renderings: many("rendering") },
  },
  rendering: { attributes: nothing, content: nothing },
  serviceTask: { attributes: { ...activityAttributes, implementation: string, operationRef: qref }, content: activity },
  sendTask: {
    attributes: { ...activityAttributes, implementation: string, operationRef: qref, messageRef: qref },
    content: activity,
  },
  receiveTask: {
    attributes: {
      ...activityAttributes,
      implementation: string,
      operationRef: qref,
      messageRef: qref,
      instantiate: boolean,
    },
    content: activity,
  },
  scriptTask: {
    attributes: { ...activityAttributes, scriptFormat: string },
    content: { ...activity, script: text },
  },
  businessRuleTask: { attributes: { ...activityAttributes, implementation: string }, content: activity },
  subProcess: { attributes: subProcessAttributes, content: subProcess },
  transaction: { attributes: { ...subProcessAttributes, method: string }, content: subProcess },
  adHocSubProcess: {
    attributes: {
      ...subProcessAttributes,
      cancelRemainingInstances: boolean,
      ordering: oneOf("Parallel", "Sequential"),
    },
    content: { ...subProcess, completionCondition: expression },
  },
  callActivity: { attributes: { ...activityAttributes, calledElement: qref }, content: activity },
  standardLoopCharacteristics: {
    attributes: { testBefore: boolean, loopMaximum: integer },
    content: { loopCondition: expression },
  },
  multiInstanceLoopCharacteristics: {
    attributes: {
      isSequential: boolean,
      behavior: oneOf("None", "One", "All", "Complex"),
      oneBehaviorEventRef: qref,
      noneBehaviorEventRef: qref,
    },
    content: {
      loopCardinality: expression,
      loopDataInputRef: ref,
      loopDataOutputRef: ref,
      inputDataItem: oneTagged("inputDataItem", "dataInput"),
      outputDataItem: oneTagged("outputDataItem", "dataOutput"),
      complexBehaviorDefinitions: many("complexBehaviorDefinition"),
      completionCondition: expression,
    },
  },
  complexBehaviorDefinition: {
    attributes: nothing,
    content: { condition: expression, event: oneTagged("event", "implicitThrowEvent") },
  },

  // Events
  startEvent: { attributes: { ...catchAttributes, isInterrupting: boolean }, content: catchEvent },
  intermediateCatchEvent: { attributes: catchAttributes, content: catchEvent },
  boundaryEvent: {
    attributes: { ...catchAttributes, cancelActivity: boolean, attachedToRef: qref },
    content: catchEvent,
  },
  intermediateThrowEvent: { attributes: named, content: throwEvent },
  implicitThrowEvent: { attributes: named, content: throwEvent },
  endEvent: { attributes: named, content: throwEvent },
  messageEventDefinition: { attributes: { messageRef: qref }, content: { operationRef: ref } },
  timerEventDefinition: {
    attributes: nothing,
    content: { timeDate: expression, timeDuration: expression, timeCycle: expression },
  },
  errorEventDefinition: { attributes: { errorRef: qref }, content: nothing },
  escalationEventDefinition: { attributes: { escalationRef: qref }, content: nothing },
  signalEventDefinition: { attributes: { signalRef: qref }, content: nothing },
  conditionalEventDefinition: { attributes: nothing, content: { condition: expression } },
  linkEventDefinition: { attributes: named, content: { source: refs, target: ref } },
  compensateEventDefinition: { attributes: { waitForCompletion: boolean, activityRef: qref }, content: nothing },
  cancelEventDefinition: { attributes: nothing, content: nothing },
  terminateEventDefinition: { attributes: nothing, content: nothing },

  // Gateways and flows
  exclusiveGateway: { attributes: { ...gatewayAttributes, default: idref }, content: flowNode },
  inclusiveGateway: { attributes: { ...gatewayAttributes, default: idref }, content: flowNode },
  parallelGateway: { attributes: gatewayAttributes, content: flowNode },
  complexGateway: {
    attributes: { ...gatewayAttributes, default: idref },
    content: { ...flowNode, activationCondition: expression },
  },
  eventBasedGateway: {
    attributes: { ...gatewayAttributes, instantiate: boolean, eventGatewayType: oneOf("Exclusive", "Parallel") },
    content: flowNode,
  },
  sequenceFlow: {
    attributes: { ...named, sourceRef: idref, targetRef: idref, isImmediate: boolean },
    content: { ...flowElement, conditionExpression: expression },
  },

  // Data
  dataObject: { attributes: dataItem, content: { ...flowElement, dataState: one("dataState") } },
  dataObjectReference: {
    attributes: { ...named, itemSubjectRef: qref, dataObjectRef: idref },
    content: { ...flowElement, dataState: one("dataState") },
  },
  dataStoreReference: {
    attributes: { ...named, itemSubjectRef: qref, dataStoreRef: qref },
    content: { ...flowElement, dataState: one("dataState") },
  },
  dataStore: {
    attributes: { ...named, capacity: integer, isUnlimited: boolean, itemSubjectRef: qref },
    content: { dataState: one("dataState") },
  },
  dataState: { attributes: named, content: nothing },
  dataInput: { attributes: dataItem, content: { dataState: one("dataState") } },
  dataOutput: { attributes: dataItem, content: { dataState: one("dataState") } },
  property: { attributes: { ...named, itemSubjectRef: qref }, content: { dataState: one("dataState") } },
  ioSpecification: {
    attributes: nothing,
    content: {
      dataInputs: many("dataInput"),
      dataOutputs: many("dataOutput"),
      inputSets: many("inputSet"),
      outputSets: many("outputSet"),
    },
  },
  inputSet: {
    attributes: named,
    content: {
      dataInputRefs: localRefs,
      optionalInputRefs: localRefs,
      whileExecutingInputRefs: localRefs,
      outputSetRefs: localRefs,
    },
  },
  outputSet: {
    attributes: named,
    content: {
      dataOutputRefs: localRefs,
      optionalOutputRefs: localRefs,
      whileExecutingOutputRefs: localRefs,
      inputSetRefs: localRefs,
    },
  },
  dataInputAssociation: { attributes: nothing, content: dataAssociation },
  dataOutputAssociation: { attributes: nothing, content: dataAssociation },
  assignment: { attributes: nothing, content: { from: expression, to: expression } },
  ioBinding: { attributes: { operationRef: qref, inputDataRef: idref, outputDataRef: idref }, content: nothing },

  // Artifacts
  association: {
    attributes: { sourceRef: qref, targetRef: qref, associationDirection: oneOf("None", "One", "Both") },
    content: nothing,
  },
  group: { attributes: { categoryValueRef: qref }, content: nothing },
  textAnnotation: { attributes: { textFormat: string }, content: { text } },
  category: { attributes: named, content: { categoryValues: many("categoryValue") } },
  categoryValue: { attributes: { value: string }, content: nothing },

  // Resources
  resource: { attributes: named, content: { resourceParameters: many("resourceParameter") } },
  resourceParameter: { attributes: { ...named, typeRef: qref, isRequired: boolean }, content: nothing },
  resourceRole: { attributes: named, content: resourceRole },
  performer: { attributes: named, content: resourceRole },
  humanPerformer: { attributes: named, content: resourceRole },
  potentialOwner: { attributes: named, content: resourceRole },
  resourceParameterBinding: { attributes: { parameterRef: qref }, content: { expression: expressionChild } },
  resourceAssignmentExpression: { attributes: nothing, content: { expression: expressionChild } },
  expression: { attributes: { language: string, evaluatesToTypeRef: qref }, content: { body: text } },
  formalExpression: { attributes: { language: string, evaluatesToTypeRef: qref }, content: { body: text } },

  // Common root elements
  itemDefinition: {
    attributes: { structureRef: string, isCollection: boolean, itemKind: oneOf("Information", "Physical") },
    content: nothing,
  },
  message: { attributes: { ...named, itemRef: qref }, content: nothing },
  error: { attributes: { ...named, errorCode: string, structureRef: qref }, content: nothing },
  escalation: { attributes: { ...named, escalationCode: string, structureRef: qref }, content: nothing },
  signal: { attributes: { ...named, structureRef: qref }, content: nothing },
  interface: { attributes: { ...named, implementationRef: string }, content: { operations: many("operation") } },
  operation: {
    attributes: { ...named, implementationRef: string },
    content: { inMessageRef: ref, outMessageRef: ref, errorRef: refs },
  },
  endPoint: { attributes: nothing, content: nothing },
  partnerEntity: { attributes: named, content: { participantRef: refs } },
  partnerRole: { attributes: named, content: { participantRef: refs } },
  globalTask: { attributes: named, content: globalTask },
  globalManualTask: { attributes: named, content: globalTask },
  globalUserTask: {
    attributes: { ...named, implementation: string },
    content: { ...globalTask, renderings: many("rendering") },
  },
  globalBusinessRuleTask: { attributes: { ...named, implementation: string }, content: globalTask },
  globalScriptTask: { attributes: { ...named, scriptLanguage: string }, content: { ...globalTask, script: text } },
} as const;
