import type { ElementType } from "../model";
import { isEvent, isGateway, isSubProcess } from "../model";

/** Sizes of new shapes, in diagram units. All are on the 4-unit grid, so that shapes of different kinds line up. */
export const taskSize = { width: 112, height: 64 } as const;
export const eventSize = { width: 32, height: 32 } as const;
export const gatewaySize = { width: 40, height: 40 } as const;
export const expandedSize = { width: 360, height: 160 } as const;
export const dataObjectSize = { width: 36, height: 46 } as const;
export const dataStoreSize = { width: 48, height: 44 } as const;
export const annotationSize = { width: 120, height: 44 } as const;
export const groupSize = { width: 200, height: 120 } as const;
export const poolSize = { width: 760, height: 200 } as const;
export const closedPoolHeight = 36;
/** Width of the name band of a pool and of a lane. */
export const bandWidth = 28;
export const laneHeight = 112;
export const gridUnit = 4;

export function sizeOf(type: ElementType, expanded = false): { readonly width: number; readonly height: number } {
  if (isEvent(type)) return eventSize;
  if (isGateway(type)) return gatewaySize;
  if (isSubProcess(type)) return expanded ? expandedSize : taskSize;
  switch (type) {
    case "dataObject":
    case "dataObjectReference":
    case "dataInput":
    case "dataOutput":
      return dataObjectSize;
    case "dataStoreReference":
      return dataStoreSize;
    case "textAnnotation":
      return annotationSize;
    case "group":
      return groupSize;
    case "participant":
      return poolSize;
    default:
      return taskSize;
  }
}

export const onGrid = (value: number) => Math.round(value / gridUnit) * gridUnit;
