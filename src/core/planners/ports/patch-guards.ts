import type { PlanEdits, Port } from "../../plan";

/** Sets some guards of a port; the others stay as they are by then. */
export const patchGuards = (edits: PlanEdits, port: string, guards: Partial<Port["guards"]>): void => {
  edits.patch("port", port, { guards: { ...edits.need("port", port).guards, ...guards } });
};
