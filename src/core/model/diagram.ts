import type { Id } from "./element";
import type { PlacedNode, XmlNode } from "./xmlNode";

/** Lengths are in the diagram's own units, one to a CSS pixel at 100 %. */
export interface Point {
  readonly x: number;
  readonly y: number;
}
export interface Bounds extends Point {
  readonly width: number;
  readonly height: number;
}
/** Numbers as they were spelled in a file, where that is not how we would write them ("100.0"). */
interface Spelled {
  readonly spelling?: { readonly [field: string]: string };
}
export type FileBounds = Bounds & Spelled;
export type Waypoint = Point & Spelled;

interface Interchange {
  readonly id: Id;
  /** Rank in the plane, which is the drawing order. */
  readonly order: number;
  readonly spelling?: { readonly [field: string]: string };
  readonly foreignAttributes?: readonly (readonly [string, string])[];
  readonly foreign?: readonly PlacedNode[];
  /** Children of DI's own extension element. */
  readonly extension?: readonly XmlNode[];
  readonly prefix?: string;
}

export interface Label {
  readonly bounds?: FileBounds;
  readonly id?: string;
  readonly labelStyle?: string;
  readonly foreignAttributes?: readonly (readonly [string, string])[];
  readonly foreign?: readonly PlacedNode[];
  readonly extension?: readonly XmlNode[];
}

/** One page: a process, a collaboration or the inside of a sub-process, drawn. */
export interface Diagram extends Interchange {
  readonly name?: string;
  readonly documentation?: string;
  readonly resolution?: number;
  /** The element whose content the page shows. */
  readonly element?: Id;
  readonly plane: {
    readonly id?: string;
    readonly foreignAttributes?: readonly (readonly [string, string])[];
    readonly foreign?: readonly PlacedNode[];
    readonly extension?: readonly XmlNode[];
  };
}

/** A node's place on a page. */
export interface Shape extends Interchange {
  readonly diagram: Id;
  readonly element: Id;
  readonly bounds: FileBounds;
  readonly label?: Label;
  readonly isHorizontal?: boolean;
  readonly isExpanded?: boolean;
  readonly isMarkerVisible?: boolean;
  readonly isMessageVisible?: boolean;
  readonly participantBandKind?: string;
  readonly choreographyActivityShape?: string;
}

/** A connection's course on a page, from waypoint to waypoint. */
export interface Edge extends Interchange {
  readonly diagram: Id;
  readonly element: Id;
  readonly waypoints: readonly Waypoint[];
  readonly label?: Label;
  readonly sourceElement?: Id;
  readonly targetElement?: Id;
  readonly messageVisibleKind?: string;
}
