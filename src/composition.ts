import "server-only";
import { createHash, randomBytes } from "node:crypto";
import { v7 } from "uuid";
import type { DeviceReader, StandIns } from "@/application/devices";
import type { AccountStore, DeedStore, EntryStore, PeopleStore } from "@/application/account-stores";
import { makeLive, type Live, type LiveStore } from "@/application/live";
import type { EntryTools } from "@/application/accounts";
import type { PassStore } from "@/application/passes";
import type { PasskeyStore, PasskeyTools } from "@/application/passkey-stores";
import type { DrillStore, PhotoStore, PlanStore, RecordStore } from "@/application/stores";
import { config } from "@/config";
import { accountStore } from "@/storage/account-store";
import { deedStore } from "@/storage/deed-store";
import { drillStore } from "@/storage/drill-store";
import { entryStore } from "@/storage/entry-store";
import { liveStore } from "@/storage/live-store";
import { passStore } from "@/storage/pass-store";
import { passkeyStore } from "@/storage/passkey-store";
import { peopleStore } from "@/storage/people-store";
import { photoStore } from "@/storage/photo-store";
import { planCache } from "@/storage/plan-cache";
import { planStore } from "@/storage/plan-store";
import { openDatabase } from "@/storage/pool";
import { recordStore } from "@/storage/record-store";
import { credentials } from "@/wire/credentials";
import { deviceReader } from "@/wire/device-reader";
import { passkeyTools } from "@/wire/passkeys";
export { paperMaker } from "@/wire/paper-maker";
import { standInsIn } from "@/wire/stand-ins";

export interface Stores {
  readonly plans: PlanStore;
  readonly entries: EntryStore;
  readonly accounts: AccountStore;
  readonly people: PeopleStore;
  readonly deeds: DeedStore;
  readonly live: LiveStore;
  readonly records: RecordStore;
  readonly photos: PhotoStore;
  readonly drills: DrillStore;
  readonly passes: PassStore;
  readonly passkeys: PasskeyStore;
  readonly keys: PasskeyTools;
  readonly tools: EntryTools;
}

const TOOLS: EntryTools = {
  hash: (text) => createHash("sha256").update(text).digest("hex"),
  newToken: () => randomBytes(32).toString("base64url"),
  newId: () => v7(),
  ...credentials,
};

export function storesOn(databaseUrl: string): Stores & { readonly close: () => Promise<void> } {
  const database = openDatabase(databaseUrl);
  return {
    plans: planStore(database, planCache(24)),
    entries: entryStore(database),
    accounts: accountStore(database),
    people: peopleStore(database),
    deeds: deedStore(database),
    live: liveStore(database),
    records: recordStore(database),
    photos: photoStore(database),
    drills: drillStore(database),
    passes: passStore(database),
    passkeys: passkeyStore(database),
    keys: passkeyTools,
    tools: TOOLS,
    close: () => database.close(),
  };
}

// One pool for the process: Next loads this module once for pages and once for routes.
const shared = globalThis as typeof globalThis & { dianomeStores?: Stores; dianomeLive?: Live };

export const stores = (): Stores => (shared.dianomeStores ??= storesOn(config().databaseUrl));

const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
/** One look at the database for everybody who listens in this process. */
export const live = (): Live => (shared.dianomeLive ??= makeLive(stores().live, pause));

/** Devices that are asked over the network: those that stand in for the planned ones, and real ones. */
export const devices = (): { readonly standIns: StandIns; readonly reader: DeviceReader } => ({
  standIns: standInsIn(config().standInFile),
  reader: deviceReader(config().readDevices),
});
