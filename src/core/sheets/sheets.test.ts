import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { asPrefix4 } from "../address";
import { must } from "../kernel";
import { PlanEdits, PlanIndex, type Plan } from "../plan";
import { editHostCell, editSegmentCell, HOST_COLUMNS, SEGMENT_COLUMNS } from "../planners";
import { testId } from "../testing/build-plan";
import { addressRegisterTable, portScheduleTable } from "./tables";
import { hostCellText, registerRows } from "./register-sheet";
import { jacketOf, jacketText, tapeSlots } from "./jacket";
import {
  partsOfBlock,
  segmentCellText,
  segmentFigures,
  segmentsInOrder,
  segmentTotals,
} from "./segment-sheet";
import { quietPart } from "./short-address";
import { rulerOf } from "./ruler";
import { runText } from "./port-sheet";

const office = PlanIndex.of(fennelStreet());
const SITES: [string, PlanIndex][] = [
  ["office", office],
  ["home", PlanIndex.of(lockkeepersHouse())],
  ["industrial", PlanIndex.of(bramblewick())],
];
const ids = () => testId("new", "one");
const named = <T extends { name: string }>(items: ReadonlyMap<string, T>, name: string): T =>
  must(
    [...items.values()].find((item) => item.name === name),
    name,
  );
const portAt = (index: PlanIndex, device: string, label: string) =>
  must(
    index.portsOf(named(index.plan.device, device).id).find((p) => p.label === label),
    label,
  );
const edited = (plan: Plan, edit: (edits: PlanEdits) => void): number => {
  const edits = new PlanEdits(plan);
  edit(edits);
  return edits.changes().length;
};

test.each(SITES)("%s: what a segment's cell shows, typed in again, changes nothing", (_, index) => {
  const written = [...index.plan.segment.values()].flatMap((segment) =>
    SEGMENT_COLUMNS.map((column) => {
      const text = segmentCellText(index, segment, column);
      if (text === "" && column !== "dns" && column !== "pool") return 0;
      return edited(index.plan, (edits) =>
        expect([column, text, editSegmentCell({ edits, index, ids }, segment.id, column, text)]).toEqual([
          column,
          text,
          null,
        ]),
      );
    }),
  );
  expect(written.length).toBeGreaterThan(50);
  expect(written.every((changes) => changes === 0)).toBe(true);
});

test.each(SITES)("%s: what a host's cell shows, typed in again, changes nothing", (_, index) => {
  for (const host of index.plan.host.values()) {
    for (const column of HOST_COLUMNS) {
      const text = hostCellText(index, host, column);
      if (text === "" && column !== "port") continue;
      expect([
        host.name,
        column,
        edited(index.plan, (edits) => editHostCell({ edits, index, ids }, host.id, column, text)),
      ]).toEqual([host.name, column, 0]);
    }
  }
});

test("figures of a segment: usable less the gateway less the plan is the room; the totals are the sums", () => {
  expect(segmentFigures(office, named(office.plan.segment, "Guests"))).toEqual({
    usable: 254,
    offered: 50,
    now: 0,
    planned: 75,
    room: 178,
    gateways: 1,
  });
  expect(segmentFigures(office, named(office.plan.segment, "Servers"))).toMatchObject({
    usable: 14,
    offered: null,
    now: 3,
    planned: 4,
    room: 9,
  });
  expect(segmentTotals(office)).toMatchObject({
    segments: 10,
    zones: 8,
    usable: 636,
    scopes: 8,
    offered: 197,
    planned: 163,
    room: 463,
  });
  expect(segmentsInOrder(office).map((s) => s.mark)).toEqual([
    "KT",
    "ST",
    "PH",
    "IM",
    "CT",
    "SV",
    "BC",
    "CM",
    "GU",
    "BV",
  ]);
  expect(quietPart(office.plan)).toBe("10.24.");
});

test("subnets lie in their block at their place and true size", () => {
  const block = must(office.plan.site.blocks[0], "a block");
  const parts = partsOfBlock(office, must(asPrefix4(block), "an IPv4 block"));
  expect(parts.map(({ segment, start, share }) => [segment.mark, start * 128, share * 128])).toContainEqual([
    "GU",
    90,
    1,
  ]);
  expect(parts).toHaveLength(10);
});

test.each(SITES)(
  "%s: a ruler's parts fill its usable addresses and overlap only where a finding says so",
  (_, index) => {
    for (const segment of index.plan.segment.values()) {
      const ruler = must(rulerOf(index, segment), "a ruler");
      const cover = new Set<number>();
      for (const part of [...ruler.pools, ...ruler.free])
        for (let i = part.first; i <= part.last; i += 1) cover.add(i);
      for (const offset of [...ruler.gateways, ...ruler.pins.map((p) => p.offset)]) cover.add(offset);
      expect([segment.name, cover.size]).toEqual([segment.name, ruler.usable.count]);
      const inPools = ruler.free.some((run) =>
        ruler.pools.some((pool) => pool.first <= run.last && run.first <= pool.last),
      );
      expect(inPools).toBe(false);
      expect(ruler.crowded.last).toBeLessThan(ruler.size);
    }
  },
);

test("a jacket shows the tip, the rings, and what is missing on its hop", () => {
  const uplink = jacketOf(office, portAt(office, "Upper switch", "25"));
  expect([
    uplink.mode,
    uplink.tip,
    uplink.rings.map((t) => t.mark),
    uplink.missing.map((t) => t.mark),
  ]).toEqual(["trunk", null, ["KT", "ST", "PH", "CT", "BC", "CM", "GU"], ["IM"]]);
  expect(jacketText(jacketOf(office, portAt(office, "Upper switch", "1")))).toBe(
    "Staff (20) untagged; 1 tagged: 30",
  );
  expect(jacketText(jacketOf(office, portAt(office, "Upper switch", "21")))).toBe("off");
  expect(jacketText(jacketOf(office, portAt(office, "Upper switch", "13")))).toBe("to decide");
  expect(tapeSlots(office, named(office.plan.domain, "Main").id).map((t) => t.vid)).toEqual([
    10, 20, 30, 40, 50, 60, 70, 80, 90,
  ]);
});

test("a run of ports is said by its printed labels", () => {
  const ports = office.portsOf(named(office.plan.device, "Upper switch").id);
  expect(runText(ports.slice(12, 17), ports)).toBe("13 to 17");
  expect(runText([must(ports[3], "4"), ...ports.slice(10, 12).reverse()], ports)).toBe("4, 11 to 12");
});

test("the register is sorted by address and holds every host once; the schedule holds every port", () => {
  const rows = registerRows(office, null);
  const addresses = rows.flatMap(({ row, entity }) =>
    row === "host" ? (entity.ipv4 ?? []) : (entity.addresses4[0] ?? []),
  );
  expect(addresses).toEqual([...addresses].sort((a, b) => a - b));
  expect(rows.filter((r) => r.row === "host")).toHaveLength(office.plan.host.size);
  expect(addressRegisterTable(office)).toHaveLength(rows.length + 1);
  const schedule = portScheduleTable(office);
  expect(schedule).toHaveLength(office.plan.port.size + 1);
  expect(schedule.find((row) => row[0] === "Upper switch" && row[1] === "1")).toEqual([
    "Upper switch",
    "1",
    "e0",
    "Phone Reception 1, behind it PC Reception 1",
    "phone + PC",
    "20",
    "20",
    "30",
    "1000",
    "copper",
    "",
    "",
    "30",
    "edge, BPDU guard, 802.1X, 3 MAC",
    "Practice sign-in",
    "30 priority 5 DSCP 46",
    "",
  ]);
});
