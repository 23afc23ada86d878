import { ReactFlow } from "@xyflow/react";
import { createRoot } from "react-dom/client";
import "@xyflow/react/dist/style.css";

/** A general node editor drawing as many nodes and edges as our canvas, for the comparison only. */
const tasks = 500;
const columns = Math.ceil(Math.sqrt(tasks * 1.6));
const nodes = Array.from({ length: tasks }, (_, at) => ({
  id: `task-${at}`,
  position: { x: (at % columns) * 168, y: Math.floor(at / columns) * 104 },
  data: { label: `Check part ${at}` },
  style: { width: 112, height: 64 },
}));
const edges = Array.from({ length: tasks - 1 }, (_, at) => ({
  id: `flow-${at}`,
  source: `task-${at}`,
  target: `task-${at + 1}`,
  type: "smoothstep",
}));

createRoot(document.getElementById("root") as HTMLElement).render(
  <div style={{ width: "1280px", height: "800px" }}>
    <ReactFlow defaultNodes={nodes} defaultEdges={edges} fitView minZoom={0.05} />
  </div>,
);
