import { formatAddress } from "../address";
import { byNaturalText, grouped } from "../kernel";
import { profileOf, type Device, type PlanIndex, type SignIn } from "../plan";
import { adminPort, SIGN_IN_COLUMNS, signInCellText } from "../planners";
import type { SheetProtection, SheetSignIn } from "./sheet-types";

/** Where a server is asked: a static or reserved address; empty where the plan knows none. */
function addressOf({ plan }: PlanIndex, host: string): string {
  const own = plan.host.get(host);
  const address = own?.ipv4 ?? own?.ipv6 ?? null;
  return address === null ? "" : formatAddress(address);
}

function sheetSignIn(index: PlanIndex, profile: SignIn, ports: readonly string[]): SheetSignIn {
  return {
    profile: profile.name,
    servers: profile.servers.map((id) => ({
      name: index.plan.host.get(id)?.name ?? "",
      address: addressOf(index, id),
    })),
    ports,
    settings: SIGN_IN_COLUMNS.filter(([column]) => column !== "name" && column !== "servers").map(
      ([column, setting]) => ({ setting, value: signInCellText(index, profile, column) }),
    ),
  };
}

const ADMINS = { local: "its own accounts", radius: "RADIUS", tacacs: "TACACS+ (RFC 8907)" } as const;

/** How administrators sign in to a device. */
export function administratorsOn(index: PlanIndex, { adminSignIn }: Device): SheetProtection[] {
  const { by, servers, localAccount } = adminSignIn;
  if (by === "local") return [{ setting: "Administrators sign in by", value: ADMINS.local }];
  return [
    { setting: "Administrators sign in by", value: ADMINS[by] },
    ...servers.map((id, at) => ({
      setting: `Server ${at + 1}`,
      value: `${addressOf(index, id)} ${index.plan.host.get(id)?.name ?? ""}`.trim(),
    })),
    { setting: "Port", value: String(adminPort(adminSignIn)) },
    { setting: "Local account without a server", value: localAccount ? "yes" : "no" },
  ];
}

/** The sign-in profiles that ports of a device use, by name, each with its ports in their order. */
export function signInsOn(index: PlanIndex, device: Device): SheetSignIn[] {
  const asking = index.portsOf(device.id).flatMap((port) => {
    const profile = port.guards.signIn ? profileOf(index, port) : undefined;
    return profile === undefined ? [] : [{ port, profile }];
  });
  return [...grouped(asking, ({ profile }) => profile)]
    .sort(([a], [b]) => byNaturalText(a.name, b.name))
    .map(([profile, own]) =>
      sheetSignIn(
        index,
        profile,
        own.map(({ port }) => port.label),
      ),
    );
}
