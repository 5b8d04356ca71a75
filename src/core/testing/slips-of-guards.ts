import { must } from "../kernel";
import { BLANK_SIGN_IN, vid, type Device, type PlanEdits, type Port, type SignIn } from "../plan";
import { testId } from "./build-plan";
import type { Slip } from "./slips-of-walls";

const v = (number: number) => must(vid(number), "a VLAN ID");
const named = <T extends { readonly name: string }>(all: readonly T[], name: string): T =>
  must(
    all.find((one) => one.name === name),
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
      d.all("port").find((one) => one.device === hall.id && one.label === label),
      label,
    );
    d.patch("port", port.id, { guards: { ...port.guards, signIn: true, profile: id } });
  }
}

/** Slips with sign-in at the port; each for the home. */
export const SLIPS_OF_GUARDS: readonly Slip[] = [
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
