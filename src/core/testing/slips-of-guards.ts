import { must } from "../kernel";
import { BLANK_SIGN_IN, type Device, type PlanEdits, type Port, type SignIn } from "../plan";
import { testId } from "./build-plan";
import type { Slip } from "./slips-of-walls";
import { v } from "./written";

const named = <T extends { readonly name: string }>(all: readonly T[], name: string): T =>
  must(
    all.find((named) => named.name === name),
    name,
  );

/** A sign-in profile, and some ports of the hall switch that ask by it. */
function signsIn(d: PlanEdits, fields: Partial<SignIn>, labels: readonly string[]): void {
  const id = testId("signIn", "Hall");
  const servers = [named(d.all("host"), "study-pc").id];
  d.put("signIn", { ...BLANK_SIGN_IN, name: "Hall", servers, byMac: true, ...fields, id });
  const hall: Device = named(d.all("device"), "Hall switch");
  for (const label of labels) {
    const port: Port = must(
      d.all("port").find((port) => port.device === hall.id && port.label === label),
      label,
    );
    d.patch("port", port.id, { guards: { ...port.guards, signIn: true, profile: id } });
  }
}

/** The home's hall switch with something set on it. */
function onHall(d: PlanEdits, fields: (hall: Device) => Partial<Device>): Device {
  const hall: Device = named(d.all("device"), "Hall switch");
  d.patch("device", hall.id, fields(hall));
  return hall;
}

/** A port of the hall switch with some guards. */
function guards(d: PlanEdits, label: string, fields: Partial<Port["guards"]>): Port {
  const hall = named(d.all("device"), "Hall switch");
  const port: Port = must(
    d.all("port").find((port) => port.device === hall.id && port.label === label),
    label,
  );
  d.patch("port", port.id, { guards: { ...port.guards, ...fields } });
  return port;
}

/** Slips with administrators, certificates and the guards of ports; each for the home. */
const SLIPS_OF_PORTS: readonly Slip[] = [
  [
    "admin-server-unreachable",
    (d) => onHall(d, () => ({ adminSignIn: { by: "tacacs", servers: [], port: null, localAccount: true } })),
    /Hall switch asks servers for its administrators, and none is named that is in the plan/,
  ],
  [
    "admin-without-local-account",
    (d) => {
      const servers = [named(d.all("host"), "study-pc").id];
      onHall(d, () => ({ adminSignIn: { by: "radius", servers, port: null, localAccount: false } }));
    },
    /Hall switch has no local account/,
  ],
  [
    "wireless-sign-in-unreachable",
    (d) => {
      const [ssid] = d.all("ssid");
      d.patch("ssid", must(ssid, "a name").id, { security: "enterprise" });
    },
    /Nobody joins .+ is for sign-in by name, and no profile says which servers are asked/,
  ],
  [
    "certificate-ends",
    (d) => signsIn(d, { certificateUntil: "2020-02-29" }, []),
    /The certificate of the servers of Hall ended on 2020-02-29/,
  ],
  [
    "known-by-changing-mac",
    (d) => {
      const heating = named(d.all("host"), "heating-controller");
      d.patch("host", heating.id, { manner: "reserved", changesMac: true });
    },
    /heating-controller changes its MAC address, and its reservation goes by it/,
  ],
  [
    "voice-policy-differs",
    (d) => {
      const port = guards(d, "4", {});
      d.patch("port", port.id, { voicePolicy: { vid: v(40), priority: 5, dscp: 46 } });
    },
    /Hall switch port 4 tells phones VLAN 40, and does not carry it tagged/,
  ],
  [
    "isolated-uplink",
    (d) => {
      const hall = named(d.all("device"), "Hall switch");
      const own = new Set(
        d
          .all("port")
          .filter(({ device }) => device === hall.id)
          .map(({ id }) => id),
      );
      const link = must(
        d.all("link").find(({ a, b }) => own.has(a) || own.has(b)),
        "a cable",
      );
      const id = own.has(link.a) ? link.a : link.b;
      d.patch("port", id, { guards: { ...d.need("port", id).guards, isolated: true } });
    },
    /Hall switch port \S+ is isolated and leads to /,
  ],
  [
    "source-check-kills-hosts",
    (d) => void guards(d, "4", { sourceCheck: true }),
    /Hall switch checks source addresses and has no binding for study-pc: what it sends is dropped/,
  ],
  [
    "bindings-lost-at-restart",
    (d) => {
      const { pvid } = guards(d, "4", { sourceCheck: true });
      d.patch("host", named(d.all("host"), "study-pc").id, { manner: "dynamic" });
      onHall(d, ({ protections }) => ({ protections: { ...protections, snooping: [must(pvid, "a VLAN")] } }));
    },
    /After a restart of Hall switch study-pc reaches nobody at first/,
  ],
  [
    "router-guard-without-trust",
    (d) => {
      const segment = must(
        d.all("segment").find(({ vlan, gatewayInterface }) => vlan !== null && gatewayInterface !== null),
        "one with a router",
      );
      d.patch("segment", segment.id, { advertise: "slaac" });
      const { vid: number } = d.need("vlan", segment.vlan ?? "");
      onHall(d, ({ protections }) => ({ protections: { ...protections, routerGuard: [number] } }));
    },
    /Hall switch port \S+ leads to the router of VLAN \d+ and is not trusted for router advertisements/,
  ],
  [
    "guard-beyond-gear",
    (d) => {
      guards(d, "4", { stormPercent: 5 });
      onHall(d, ({ abilities }) => ({ abilities: { ...abilities, stormLimits: false } }));
    },
    /Hall switch is not known to have storm limits/,
  ],
  [
    "tree-timers-unfit",
    (d) => onHall(d, ({ tree }) => ({ tree: { ...tree, kind: "rapid", forwardDelay: 4 } })),
    /Hall switch has a maximum age of 20 s: with a forward delay of 4 s it may be 6 s at most/,
  ],
];

/** Slips with guards of switches; each for the home. */
export const SLIPS_OF_GUARDS: readonly Slip[] = [
  ...SLIPS_OF_PORTS,
  [
    "gives-up-before-let-in",
    (d) => {
      const heating = named(d.all("host"), "heating-controller");
      d.patch("host", heating.id, { manner: "reserved" });
      signsIn(d, {}, ["8"]);
    },
    /heating-controller asks for an address for 60 s, and Hall lets it in after 91 s/,
  ],
  [
    "phones-without-server",
    (d) => {
      const desk = named(d.all("host"), "lodgers-desk");
      d.patch("host", desk.id, { kind: "phone", tag: v(40) });
      signsIn(d, { byMac: false }, ["7"]);
    },
    /With all servers of Hall down lodgers-desk loses VLAN 40, and with it calls for help/,
  ],
  [
    "sign-in-vlan-unknown",
    (d) => signsIn(d, { visitors: v(777) }, ["4"]),
    /Hall puts visitors into VLAN 777, and there is no such VLAN where Hall switch is/,
  ],
  [
    "more-than-sign-in-admits",
    (d) => {
      const television = named(d.all("host"), "television");
      const desk = named(d.all("host"), "study-pc");
      d.patch("host", television.id, { attachment: desk.attachment });
      signsIn(d, { hosts: "one" }, ["4"]);
    },
    /Hall switch port 4 has study-pc and television, and Hall lets in one device/,
  ],
  [
    "limited-without-dhcp",
    (d) => signsIn(d, { stage: "limited" }, ["4"]),
    /Hall is limited, and DHCP is not among what passes before a sign-in/,
  ],
  [
    "sign-in-watches",
    (d) => signsIn(d, { stage: "watch" }, ["4", "5"]),
    /Hall is at the stage watch: 2 ports let everybody in/,
  ],
];
