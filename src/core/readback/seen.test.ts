import { fennelStreet } from "../../../demo/fennel-street";
import { Study } from "../diagnosis";
import { must } from "../kernel";
import { nameOf, PlanIndex, type Device, type Port } from "../plan";
import { testId } from "../testing/build-plan";
import { readNeighbours } from "./neighbour-table";
import { deviceLookedAt, pageSeen } from "./page";

const index = PlanIndex.of(fennelStreet());
const ids = () => testId("read", "1");
const device: Device = must(
  [...index.plan.device.values()].find(({ name }) => name === "Upper switch"),
  "a switch",
);
const ports = index.portsOf(device.id);
const trunk: Port = must(
  ports.find(({ id }) => index.portsOf(index.peerOf(id)?.device ?? "").length > 1),
  "a port with a cable to another switch",
);
const peer = must(index.peerOf(trunk.id), "the other end");
const peerDevice = must(index.plan.device.get(peer.device), "the other device");
const access: Port = must(
  ports.find(({ id, pvid }) => index.hostsAt(id).length > 0 && pvid !== null),
  "a port of a device",
);
const free: Port = must(
  ports.find(({ id }) => index.peerOf(id) === undefined && index.hostsAt(id).length === 0),
  "a free port",
);

function neighbours(text: string) {
  const read = readNeighbours(index, device, text);
  if (!read.ok) throw new Error(read.error);
  return read.value;
}
const verdicts = (text: string) => neighbours(text).lines.map(({ verdict, says }) => [verdict, says]);

describe("a table of neighbours", () => {
  test("is read in any order of columns, and laid beside the cables", () => {
    const right = `Local Port | System Name | Port ID\n${trunk.label} | ${peerDevice.name} | ${peer.label}`;
    expect(verdicts(right)).toEqual([["right", ""]]);
    const turned = `Port ID;System Name;Local Interface\n${peer.label};${peerDevice.name};${trunk.label}`;
    expect(verdicts(turned)).toEqual([["right", ""]]);
    const row = `${trunk.label.padEnd(14)}${peerDevice.name.padEnd(21)}${peer.label}`;
    const blanks = `Local Intf    Chassis ID           Port\n${row}`;
    expect(neighbours(blanks).lines).toHaveLength(1);
  });

  test("a cable in another port is told and a reading; gear without its port is right as it is", () => {
    const other = must(
      index.portsOf(peerDevice.id).find(({ id }) => id !== peer.id),
      "another port",
    );
    const text = `Local port\tSystem name\tPort\n${trunk.label}\t${peerDevice.name}\t${other.label}`;
    const { lines, readings } = neighbours(text);
    expect(lines[0]?.says).toMatch(/^In Upper switch port .* is the cable of .*; it has to be /);
    expect(readings.map(({ read, came }) => [read, came])).toEqual([
      [`In it: ${nameOf(index, "port", other.id)}`, "otherwise"],
    ]);
    const [reading] = readings;
    const study = new Study(index);
    const ask = must(reading, "a reading").asked.ask;
    expect(study.isAsPlanned({ id: "1", ask, seen: { is: "text", text: reading?.read ?? "" } })).toBe(false);
    expect(verdicts(`Local port\tSystem name\n${trunk.label}\t${peerDevice.name}`)).toEqual([["right", ""]]);
    expect(verdicts(`Local port\tSystem name\n${free.label}\t${peerDevice.name}`)[0]?.[0]).toBe("otherwise");
  });

  test("a stranger in a free port is otherwise, beside what is planned a note; no port is said", () => {
    expect(verdicts(`Local port\tSystem name\n${free.label}\tsome-box`)[0]?.[0]).toBe("otherwise");
    expect(verdicts(`Local port\tSystem name\n${trunk.label}\tsome-box`)[0]?.[0]).toBe("note");
    expect(neighbours("Local port\tSystem name\nfrob 99\tsome-box").missed).toHaveLength(1);
    expect(readNeighbours(index, device, "nothing that is a table").ok).toBe(false);
  });
});

describe("a device's pages, pasted", () => {
  const table = (pvid: number) => `Port;PVID;Untagged\n${access.label};${pvid};${pvid}\n`;
  const seen = (text: string) => {
    const read = pageSeen(index, device, text, ids);
    if (!read.ok) throw new Error(read.error);
    return read.value;
  };

  test("as planned where what was read is; else the lines that differ, as faults are laid beside them", () => {
    const own = must(access.pvid, "a VLAN");
    expect(seen(table(own))).toEqual({ isRight: true, lines: "", words: "1 port read; all as planned." });
    const other = must(
      [...index.plan.vlan.values()].find(({ vid }) => vid !== own),
      "another VLAN",
    ).vid;
    const { isRight, lines, words } = seen(table(other));
    expect([isRight, words]).toEqual([false, "1 port read; 1 line differs."]);
    expect(lines).toMatch(new RegExp(`^port ${access.label}: untagged ${other}, `));
    const study = new Study(index);
    const reading = {
      id: "1",
      ask: { what: "look", look: { on: "device", device: device.id } },
      seen: { is: "text", text: lines },
    } as const;
    expect(study.isAsPlanned(reading)).toBe(false);
  });

  test("text that is no table is refused; the pages of a device are known by the id of the reading", () => {
    expect(pageSeen(index, device, "hello", ids).ok).toBe(false);
    expect(deviceLookedAt(index, `shown device ${device.id}`)).toBe(device);
    expect(deviceLookedAt(index, `look ${device.id}`)).toBe(device);
    expect(deviceLookedAt(index, `lease port ${free.id}`)).toBeNull();
  });
});
