import { decodePlan, encodePlan } from "../src/core/formats";
import { deviceData, deviceSteps } from "../src/core/device-sheet";
import { must } from "../src/core/kernel";
import { applyChanges, PlanEdits, PlanIndex, type Plan, type Vid } from "../src/core/plan";
import { carryExactly, paintPorts } from "../src/core/planners";
import { vlanPaths } from "../src/core/sheets";
import { portCarries } from "../src/core/forwarding";
import { layout } from "../src/workers/layout";
import type { LayoutBox, LayoutCable } from "../src/workers/layout-model";
import { generate, SIZES } from "./generate";

type Add = (operation: string, ms: number, parse: number) => void;
type Median = (runs: number, once: () => unknown) => number;

/** A generated plan as the application has it, with the text it was read from. */
function sized(name: string): { readonly plan: Plan; readonly text: string } {
  const text = JSON.stringify(
    encodePlan(
      generate(
        must(
          SIZES.find((size) => size.name === name),
          name,
        ),
      ),
    ),
  );
  const read = decodePlan(JSON.parse(text));
  return { plan: must(read.ok ? read.value : null, "the generated plan is sound"), text };
}

/** The work of the cabling, the ports and the drawing. */
export async function measureHardware(add: Add, median: Median): Promise<void> {
  const estate = sized("estate");
  const parse = median(5, () => JSON.parse(estate.text));
  add("JSON.parse of the estate", parse, parse);
  const [vlans, switches] = [
    estate.plan.vlan.size,
    [...estate.plan.device.values()].filter((device) => device.kind === "switch").length,
  ];
  add(
    `carry of ${vlans} VLANs on ${switches} switches, from nothing`,
    median(5, () => portCarries(PlanIndex.of(estate.plan))),
    parse,
  );
  const trunks = [...estate.plan.port.values()].filter((port) => port.tagged.length > 1);
  const stripping = new PlanEdits(estate.plan);
  for (const port of trunks) stripping.patch("port", port.id, { tagged: port.tagged.slice(0, 1) });
  const stripped = applyChanges(estate.plan, stripping.changes());
  const bare = must(stripped.ok ? stripped.value : null, "applies");
  add(
    `carry repair of ${trunks.length} trunk ports that lack almost all`,
    median(3, () => {
      const edits = new PlanEdits(bare);
      carryExactly(edits, PlanIndex.of(bare));
      return edits.changes();
    }),
    parse,
  );
  const ports = [...estate.plan.port.values()]
    .filter((port) => port.tagged.length === 0)
    .slice(0, 1000)
    .map((port) => port.id);
  const vid: Vid = must([...estate.plan.vlan.values()][7], "a VLAN").vid;
  const index = PlanIndex.of(estate.plan);
  portCarries(index);
  add(
    `paint ${ports.length} ports`,
    median(15, () => {
      const edits = new PlanEdits(estate.plan);
      paintPorts(edits, ports, { role: "access", vid });
      const changes = edits.changes();
      const after = applyChanges(estate.plan, changes);
      return index.derive(must(after.ok ? after.value : null, "applies"), changes);
    }),
    parse,
  );

  const campus = sized("campus");
  const small = median(15, () => JSON.parse(campus.text));
  const of = PlanIndex.of(campus.plan);
  add("JSON.parse of the campus", small, small);
  add(
    "VLAN paths of the campus",
    median(5, () => vlanPaths(of, [...campus.plan.domain.keys()][0] ?? null, "between gear")),
    small,
  );
  const device = must([...campus.plan.device.values()][1], "a switch");
  add(
    "sheet of a switch of the campus",
    median(15, () => deviceSteps(deviceData(of, device))),
    small,
  );

  const devices = [...campus.plan.device.values()].slice(0, 200);
  const shown = new Set(devices.map((device) => device.id));
  const deviceOf = (port: string) => campus.plan.port.get(port)?.device ?? "";
  const cables = [...campus.plan.link.values()]
    .map((link): LayoutCable => ({ id: link.id, from: deviceOf(link.a), to: deviceOf(link.b) }))
    .filter((cable) => shown.has(cable.from) && shown.has(cable.to));
  const above = new Map(cables.map((cable) => [cable.to, cable.from]));
  // Once tangled, five devices in a room whatever they are cabled to; once with each distribution switch in
  // one building with its own.
  const placings = {
    "rooms of five": (_id: string, i: number) => `Room ${Math.floor(i / 5)}`,
    "a building each": (id: string) => above.get(id) ?? id,
  } as const;
  for (const [placing, groupOf] of Object.entries(placings)) {
    const boxes = devices.map((device, i): LayoutBox => ({
      id: device.id,
      width: 156,
      height: 50,
      group: groupOf(device.id, i),
    }));
    const times: number[] = [];
    for (let i = 0; i < 3; i += 1) {
      const begin = performance.now();
      await layout(boxes, cables, () => undefined);
      times.push(performance.now() - begin);
    }
    add(
      `layout of ${boxes.length} devices, ${placing} (a worker's work)`,
      must([...times].sort((a, b) => a - b)[1], "a time"),
      small,
    );
  }
}
