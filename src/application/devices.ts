import { err, ok, type Result } from "@/core/kernel";
import type { Change } from "@/core/plan";
import type { DeviceRequest } from "@/core/readback";
import { NO_SUCH_SITE, type AppError } from "./errors";
import type { PlanStore } from "./stores";

/** How devices that stand in for the planned ones are, seen by somebody who stands before them. */
export interface BenchState {
  /** The revision of the plan that they are devices of. */
  readonly revision: number;
  /** What leads from gear out of the box to what runs on them, in its text form. */
  readonly changes: unknown;
  readonly unsaved: readonly string[];
  readonly starting: readonly string[];
  readonly laptop: string | null;
}

/** What is done by hand before stand-in devices. */
export type ByHand =
  | { readonly do: "begin"; readonly changes: readonly Change[] }
  | { readonly do: "plug"; readonly port: string | null }
  | { readonly do: "power" | "powerCut" | "reset"; readonly device: string };

/** What a stand-in device is asked over RESTCONF by the laptop, where that is. */
export type Asking =
  { readonly what: "read" | "save" | "restart" } | ({ readonly what: "enter" } & DeviceRequest);

/** What a device answered. */
export interface Heard {
  readonly status: number;
  readonly text: string;
}

/** Why a device or a stand-in could not be asked at all. */
export interface NotAsked {
  readonly code: "no-stand-ins" | "device-not-read";
  readonly sentence: string;
}

export interface StandIns {
  /** Does something by hand, where there is something to do; how all stands then. */
  readonly bench: (site: string, act: ByHand | null) => Promise<Result<BenchState, NotAsked>>;
  /** Asks a device; null for one that keeps silent. */
  readonly ask: (site: string, device: string, asking: Asking) => Promise<Result<Heard | null, NotAsked>>;
}

/** Where a device is read, and who reads it; the password is used once and kept nowhere. */
export interface Reading {
  readonly address: string;
  readonly user: string;
  readonly password: string;
  /** SHA-256 of the certificate that it shows; empty where one that this machine knows has signed it. */
  readonly fingerprint: string;
}

export interface DeviceReader {
  /** Whose configuration may be read: what the start command was given. */
  readonly allowed: readonly string[];
  /** A device's configuration as YANG data in JSON (RFC 7951). */
  readonly read: (reading: Reading) => Promise<Result<string, NotAsked>>;
}

/** What came of an act or a question, and how everything stands then. */
export interface BenchAnswer {
  readonly state: BenchState;
  /** Null for silence, and where nothing was asked. */
  readonly heard: Heard | null;
}

export type BenchAct = ByHand | { readonly do: "ask"; readonly device: string; readonly asking: Asking };

/** Does something on the stand-in devices of a site; nothing where `act` is null. */
export async function onBench(
  { plans, standIns }: { readonly plans: PlanStore; readonly standIns: StandIns },
  site: string,
  act: BenchAct | null,
): Promise<Result<BenchAnswer, AppError>> {
  if ((await plans.nameOf(site)) === null) return err(NO_SUCH_SITE);
  if (act?.do !== "ask") {
    const state = await standIns.bench(site, act);
    return state.ok ? ok({ state: state.value, heard: null }) : state;
  }
  const heard = await standIns.ask(site, act.device, act.asking);
  if (!heard.ok) return heard;
  const state = await standIns.bench(site, null);
  return state.ok ? ok({ state: state.value, heard: heard.value }) : state;
}

/** Reads a real device, if it is one that may be read. */
export async function readRealDevice(
  { plans, reader }: { readonly plans: PlanStore; readonly reader: DeviceReader },
  site: string,
  reading: Reading,
): Promise<Result<string, AppError>> {
  if ((await plans.nameOf(site)) === null) return err(NO_SUCH_SITE);
  const { allowed } = reader;
  if (allowed.includes(reading.address)) return reader.read(reading);
  return err({
    code: "device-not-read",
    sentence:
      allowed.length === 0
        ? "Reading devices over the network is off. Whoever runs Dianome switches it on with READ_DEVICES, " +
          "a list of addresses."
        : `${reading.address} is not one of the addresses that may be read: ${allowed.join(", ")}.`,
  });
}
