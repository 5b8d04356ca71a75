import fc from "fast-check";
import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { asPrefix4, asPrefix6, ipv4, parseMac, parsePrefix } from "../address";
import { must } from "../kernel";
import {
  applyChanges,
  BLANK_GEAR,
  PlanEdits,
  PlanIndex,
  vid as asVid,
  type CollectionKind,
  type EntityOf,
  type Plan,
} from "../plan";
import { RADIO_SETS } from "../wireless";
import {
  addDevice,
  addSegment,
  connectPorts,
  dissolveLag,
  makeLag,
  paintPorts,
  setLagMode,
  removeDevice,
  removeHost,
  removeSegment,
  type EditContext,
} from "../planners";
import { testId } from "../testing/build-plan";
import { recheck } from "./recheck";
import { listFindings, runChecks } from "./registry";

interface Edit {
  readonly what: number;
  readonly a: number;
  readonly b: number;
  readonly vid: number;
}

const TODAY = "2026-11-25";
const NAMES = ["front-desk", "Front-Desk", "scale 3", "press_2", "-", "Staff"];
const SUBNETS = [
  "10.24.20.0/25",
  "10.24.30.0/29",
  "172.28.4.0/24",
  "203.0.113.0/24",
  "10.24.10.0/27",
  "127.0.0.0/24",
];
const PLACES = ["Cabinet A", "Office", "Hall cupboard", "Bottling hall", ""];
const V6 = must(asPrefix6(must(parsePrefix("fd24:5a10:3c01::/80"), "a prefix")), "a prefix");
const VIDS = [10, 20, 30, 60, 90, 110, 140, 777];
const anyEdit: fc.Arbitrary<Edit> = fc.record({
  what: fc.nat(38),
  a: fc.nat(9999),
  b: fc.nat(9999),
  vid: fc.constantFrom(...VIDS),
});
const pick = <K extends CollectionKind>(edits: PlanEdits, kind: K, n: number): EntityOf<K> | undefined => {
  const all = edits.all(kind);
  return all[n % Math.max(1, all.length)];
};

/** One edit of a kind that a person makes; what does not fit the plan does nothing. */
// eslint-disable-next-line complexity -- one short case for each kind of edit that the property draws
function make(context: EditContext, { what, a, b, vid }: Edit): void {
  const { edits } = context;
  const number = must(asVid(vid), "a VID");
  const [port, host, segment] = [pick(edits, "port", a), pick(edits, "host", a), pick(edits, "segment", a)];
  switch (what) {
    case 0:
      if (port !== undefined) paintPorts(edits, [port.id], { role: "access", vid: number });
      return;
    case 1:
      if (port !== undefined)
        edits.patch("port", port.id, { tagged: [...new Set([...port.tagged, number])] });
      return;
    case 2:
      if (port !== undefined) edits.patch("port", port.id, { tagged: port.tagged.slice(1) });
      return;
    case 3:
      if (port !== undefined) edits.patch("port", port.id, { enabled: !port.enabled });
      return;
    case 4:
      if (port !== undefined)
        edits.patch("port", port.id, { pvid: number, untagged: b % 2 === 0 ? [number] : [] });
      return;
    case 5:
      if (host !== undefined)
        edits.patch("host", host.id, {
          ipv4: ipv4(0x0a180a00 + (b % 512)),
          manner: b % 3 === 0 ? "reserved" : "typed",
        });
      return;
    case 6:
      if (host !== undefined)
        edits.patch("host", host.id, {
          tag: b % 2 === 0 ? null : number,
          segment: pick(edits, "segment", b)?.id ?? null,
        });
      return;
    case 7:
      if (host !== undefined)
        edits.patch("host", host.id, {
          attachment:
            b % 3 === 0 ? { at: "unplaced" } : { at: "port", port: pick(edits, "port", b)?.id ?? "" },
        });
      return;
    case 8:
      if (segment !== undefined)
        edits.patch("segment", segment.id, { planned: b % 300, dns: pick(edits, "segment", b)?.dns ?? [] });
      return;
    case 9: {
      const link = pick(edits, "link", a);
      if (link !== undefined) edits.remove("link", link.id);
      return;
    }
    case 10:
      connectPorts(context, port?.id ?? "", pick(edits, "port", b)?.id ?? "");
      return;
    case 11:
      addSegment(context, { name: `New ${a}`, vid: b % 2 === 0 ? String(vid) : "", prefix: "", zone: "" });
      return;
    case 12:
      addDevice(context, {
        model: b % 2 === 0 ? "switch-8-poe" : "access-point",
        name: `Gear ${a}`,
        place: "",
      });
      return;
    case 13:
      if (host !== undefined) edits.patch("host", host.id, { name: must(NAMES[b % NAMES.length], "a name") });
      return;
    case 14:
      if (host !== undefined)
        edits.patch("host", host.id, {
          mac: b % 4 === 0 ? null : parseMac(`0${b % 4}:5a:10:00:00:0${b % 3}`),
          manner: b % 2 === 0 ? "typed" : "reserved",
        });
      return;
    case 15: {
      const name = must(NAMES[b % NAMES.length], "a name");
      edits.put("gear", {
        ...BLANK_GEAR,
        id: testId("gear", name),
        name,
        kind: b % 2 === 0 ? "gateway" : "providerBox",
        addresses: [must(ipv4(0x0a180a00 + (b % 40)), "an address")],
        dhcp: b % 3 === 0 ? "off" : "on",
        fate: b % 5 === 0 ? "remove" : "keep",
        facesInternet: true,
        supportUntil: b % 2 === 0 ? "2020-01-01" : null,
      });
      return;
    }
    case 16: {
      const gear = pick(edits, "gear", a);
      if (gear !== undefined) edits.remove("gear", gear.id);
      return;
    }
    case 17: {
      const device = pick(edits, "device", a);
      if (device !== undefined)
        edits.put("deviceVlan", {
          id: testId("entry", `${device.id} ${vid}`),
          device: device.id,
          vid: number,
          name: must(NAMES[b % NAMES.length], "a name"),
        });
      return;
    }
    case 18: {
      const device = pick(edits, "device", a);
      if (device !== undefined)
        edits.patch("device", device.id, {
          vlanNameLimit: b % 2 === 0 ? 4 : null,
          supportUntil: b % 3 === 0 ? "2020-01-01" : null,
        });
      return;
    }
    case 19: {
      const vlan = pick(edits, "vlan", a);
      if (vlan !== undefined) edits.patch("vlan", vlan.id, { name: must(NAMES[b % NAMES.length], "a name") });
      return;
    }
    case 20:
      if (segment !== undefined)
        edits.patch("segment", segment.id, {
          growth: b % 400,
          visit: b % 2 === 0 ? null : { perHour: b % 900, staySeconds: 600, openSeconds: 36_000 },
          advertise: b % 3 === 0 ? "slaac" : "none",
        });
      return;
    case 21:
      if (segment !== undefined)
        edits.patch("segment", segment.id, {
          prefixes4: [
            must(asPrefix4(parsePrefix(must(SUBNETS[b % SUBNETS.length], "a subnet"))), "a prefix"),
          ],
          prefixes6: b % 3 === 0 ? [V6] : [],
        });
      return;
    case 22: {
      const scope = pick(edits, "scope", a);
      if (scope === undefined) return;
      edits.patch(
        "scope",
        scope.id,
        [
          { exclusions: scope.pools },
          { leaseSeconds: 604_800 },
          {
            pools: scope.pools.map((pool) =>
              typeof pool.last === "number" ? { ...pool, last: pool.first } : pool,
            ),
          },
        ][b % 3] ?? {},
      );
      return;
    }
    case 23:
      edits.patch("site", edits.plan.site.id, {
        keepClear: [
          {
            prefix: must(parsePrefix(must(SUBNETS[b % SUBNETS.length], "a subnet")), "a prefix"),
            reason: "kept clear",
          },
        ],
        conventions: {
          ...edits.plan.site.conventions,
          staticSize: b % 60,
          school: b % 2 === 0 ? "reserve" : "type",
        },
      });
      return;
    case 24: {
      const line = pick(edits, "line", a);
      if (line !== undefined)
        edits.patch("line", line.id, {
          providerBox: "routes",
          boxPrefix: must(asPrefix4(parsePrefix(must(SUBNETS[b % SUBNETS.length], "a subnet"))), "a prefix"),
        });
      return;
    }
    case 26: {
      const device = pick(edits, "device", a);
      if (device !== undefined)
        edits.patch("device", device.id, {
          poe: b % 2 === 0 ? "class3" : "none",
          poeBudgetMw: b % 3 === 0 ? 20_000 : 200_000,
          poeOneLostMw: b % 4 === 0 ? 10_000 : null,
        });
      return;
    }
    case 27: {
      const device = pick(edits, "device", a);
      if (device !== undefined)
        edits.patch("device", device.id, {
          abilities: { ...device.abilities, maxVlans: b % 2 === 0 ? 3 : null, mixesTagged: b % 3 !== 0 },
          rackUnit: 1 + (b % 4),
          heightUnits: b % 3,
          place: must(PLACES[b % PLACES.length], "a place"),
        });
      return;
    }
    case 28: {
      const [one, other] = [pick(edits, "device", a), pick(edits, "device", b)];
      if (one !== undefined && other !== undefined)
        edits.patch("device", one.id, { hears: one.hears.includes(other.id) ? [] : [other.id] });
      return;
    }
    case 29: {
      const radio = pick(edits, "radio", a);
      if (radio !== undefined)
        edits.patch("radio", radio.id, {
          channel: b % 5 === 0 ? null : ([1, 3, 6, 36, 44, 149][b % 6] ?? null),
          widthMhz: b % 3 === 0 ? 40 : 20,
          enabled: b % 7 !== 0,
        });
      return;
    }
    case 30: {
      const ssid = pick(edits, "ssid", a);
      const points = edits.all("device").filter((device) => device.kind === "accessPoint");
      if (ssid !== undefined)
        edits.patch("ssid", ssid.id, {
          security: b % 3 === 0 ? "open" : "sae",
          isolation: b % 2 === 0,
          bands: b % 4 === 0 ? ["6"] : ["2.4", "5"],
          segment: segment?.id ?? ssid.segment,
          at: b % 2 === 0 ? [] : points.slice(0, b % 3).map((point) => point.id),
          name: b % 5 === 0 ? "Fennel Staff" : ssid.name,
        });
      return;
    }
    case 31: {
      const link = pick(edits, "link", a);
      if (link !== undefined)
        edits.patch("link", link.id, {
          medium: b % 3 === 0 ? "fibre" : "copper",
          cable: (["os2", "unknown", "cat5e", "os2", "cat5e", "unknown"] as const)[b % 6] ?? "unknown",
          lengthCm: b % 2 === 0 ? 12_000 : 300,
        });
      return;
    }
    case 32:
      if (port !== undefined)
        edits.patch("port", port.id, {
          optic: b % 2 === 0 ? "10GBASE-SR" : "none",
          speedMbps: b % 3 === 0 ? 100 : 10_000,
          medium: b % 4 === 0 ? "fibre" : "copper",
          poeMw: b % 2 === 0 ? 0 : 30_000,
          softwareName: b % 5 === 0 ? "e1" : port.softwareName,
        });
      return;
    case 33: {
      const device = pick(edits, "device", a);
      const own = edits.all("port").filter((port) => port.device === device?.id);
      if (device !== undefined)
        makeLag(
          context,
          own.slice(b % 5, (b % 5) + 2).map((port) => port.id),
          b % 2 === 0 ? "active" : "passive",
        );
      return;
    }
    case 34: {
      const lag = pick(edits, "lag", a);
      if (lag === undefined) return;
      if (b % 2 === 0) setLagMode({ edits }, lag.id, "static");
      else dissolveLag({ edits }, lag.id);
      return;
    }
    case 35: {
      const [room, other] = [pick(edits, "room", a), pick(edits, "room", b)];
      if (room !== undefined && other !== undefined)
        edits.patch("room", room.id, {
          building: b % 2 === 0 ? "Barn" : "",
          beside: b % 3 === 0 ? [other.id] : [],
          needs: b % 4 === 0 ? "40 PC" : room.needs,
        });
      return;
    }
    case 36:
      if (host !== undefined)
        edits.patch("host", host.id, {
          poe: b % 2 === 0 ? "class6" : "asKind",
          kind: b % 3 === 0 ? "camera" : "pc",
        });
      return;
    case 37: {
      const vlan = pick(edits, "vlan", a);
      if (vlan !== undefined) edits.patch("vlan", vlan.id, { purpose: b % 2 === 0 ? "wayBack" : "segment" });
      return;
    }
    case 38:
      edits.patch("site", edits.plan.site.id, {
        radio: b % 2 === 0 ? RADIO_SETS.americas : RADIO_SETS.europe,
      });
      return;
    default: {
      const device = pick(edits, "device", a);
      if (b % 4 === 0 && device !== undefined) removeDevice(edits, device.id);
      else if (b % 4 === 1 && segment !== undefined) removeSegment(edits, segment.id);
      else if (b % 4 === 2 && host !== undefined) removeHost(edits, host.id);
      else {
        const wall = pick(edits, "wall", a);
        if (wall !== undefined) edits.remove("wall", wall.id);
      }
    }
  }
}

test.each([
  ["office", fennelStreet()],
  ["home", lockkeepersHouse()],
  ["industrial", bramblewick()],
])("%s: after any edits, rechecking gives what checking everything anew gives", (_, plan: Plan) => {
  const first = PlanIndex.of(plan, TODAY);
  const found = runChecks(first);
  let changed = 0;
  fc.assert(
    fc.property(fc.array(anyEdit, { minLength: 1, maxLength: 12 }), (edits) => {
      let [index, findings] = [first, found];
      for (const [i, edit] of edits.entries()) {
        let n = 0;
        const edits = new PlanEdits(index.plan);
        make({ edits, index, ids: () => testId("made", `${i} ${(n += 1)} ${edit.a}`) }, edit);
        const changes = edits.changes();
        const applied = applyChanges(index.plan, changes);
        if (!applied.ok) continue;
        index = index.derive(applied.value, changes);
        findings = recheck(findings, index, changes);
        changed += changes.length;
      }
      const anew = runChecks(PlanIndex.of(index.plan, TODAY));
      // The order of rows in a plan differs with the way it came about; what is found must not.
      const keys = (of: typeof anew) =>
        listFindings(of)
          .map(
            (f) =>
              `${f.severity} ${f.key} ` +
              `${JSON.stringify(f.data, (_k, v: unknown) => (typeof v === "bigint" ? String(v) : v))}`,
          )
          .sort();
      expect(keys(findings)).toEqual(keys(anew));
      // A finding is chosen, accepted and drawn by its key: no other has it.
      const names = listFindings(anew).map(({ key }) => key);
      expect(names.filter((name, i) => names.indexOf(name) !== i)).toEqual([]);
    }),
    { numRuns: 120, seed: 33 },
  );
  expect(changed).toBeGreaterThan(200);
});
