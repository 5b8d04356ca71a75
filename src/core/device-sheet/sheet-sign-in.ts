import { formatAddress } from "../address";
import { byNaturalText, grouped } from "../kernel";
import { profileOf, type Device, type PlanIndex, type SignIn } from "../plan";
import { SIGN_IN_COLUMNS, signInCellText } from "../planners";
import type { SheetSignIn } from "./sheet-types";

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
