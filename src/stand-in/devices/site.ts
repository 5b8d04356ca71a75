import { randomUUID } from "node:crypto";
import { must, type Result } from "@/core/kernel";
import { afterEdits, diff, PlanEdits, type Change, type Device, type PlanIndex } from "@/core/plan";
import { afterYang, deviceOf } from "@/core/readback";
import { changesFrom, stateFrom } from "@/core/records";
import { foundState, isUnpowered, setUpDevices, wayFrom, withDeviceAs } from "@/core/runbook";

/** How long a device takes, compressed: a minute and a half is a second and a half. */
const RESTART_MS = 1_500;
const RESET_MS = 3_000;

/** What can be seen of the devices by somebody who stands before them. */
export interface SiteState {
  /** What leads from gear out of the box to what runs on the devices. */
  readonly changes: readonly Change[];
  /** Devices that run otherwise than they would after a power cut. */
  readonly unsaved: readonly string[];
  /** Devices that don't answer just now, since they start. */
  readonly starting: readonly string[];
  /** The port that the laptop is plugged into; null for none. */
  readonly laptop: string | null;
}

/** The devices of one site: what runs on them, what they would start with, and where the laptop is. */
export class StandInSite {
  readonly #now: () => number;
  #index: PlanIndex;
  #box: PlanIndex;
  #running: PlanIndex;
  #saved: PlanIndex;
  #laptop: string | null = null;
  readonly #startsUntil = new Map<string, number>();

  private constructor(index: PlanIndex, box: PlanIndex, now: () => number) {
    this.#now = now;
    this.#index = index;
    this.#box = box;
    this.#running = box;
    this.#saved = box;
  }

  /** A site whose gear comes out of the box; null where that is no state of its plan. */
  static of(index: PlanIndex, now: () => number): StandInSite | null {
    const box = foundState(index, null);
    return box === null ? null : new StandInSite(index, box, now);
  }

  get plan(): PlanIndex {
    return this.#index;
  }
  /** What runs on the devices, as a plan. */
  get running(): PlanIndex {
    return this.#running;
  }

  device(id: string): Device | null {
    return setUpDevices(this.#index).find((device) => device.id === id) ?? null;
  }

  /** The plan has changed: what is on the devices stays as it is, as far as it is about what there still is. */
  follow(index: PlanIndex): void {
    const box = foundState(index, null);
    if (box === null) return;
    const over = (state: PlanIndex) =>
      stateFrom(index, changesFrom(this.#box, state)) ?? must(foundState(index, null), "as above");
    [this.#running, this.#saved] = [over(this.#running), over(this.#saved)];
    [this.#index, this.#box] = [index, box];
    if (this.#laptop !== null && !index.plan.port.has(this.#laptop)) this.#laptop = null;
  }

  /** Everything is as it is found: by these changes from out of the box. False where that is no state. */
  begin(changes: readonly Change[]): boolean {
    const found = stateFrom(this.#index, changes);
    if (found === null) return false;
    [this.#running, this.#saved, this.#laptop] = [found, found, null];
    this.#startsUntil.clear();
    return true;
  }

  state(): SiteState {
    const differ = new Set(
      diff(this.#saved.plan, this.#running.plan).flatMap((change) => deviceOf(change) ?? []),
    );
    return {
      changes: changesFrom(this.#box, this.#running),
      unsaved: [...differ],
      starting: [...this.#startsUntil.keys()].filter((id) => this.#isStarting(id)),
      laptop: this.#laptop,
    };
  }

  #isStarting(device: string): boolean {
    return (this.#startsUntil.get(device) ?? 0) > this.#now();
  }

  plug(port: string | null): void {
    this.#laptop = port;
  }

  /** Whether there is a way from the laptop, where it is, to a device. */
  reaches(device: string): boolean {
    const port = this.#laptop;
    return port !== null && wayFrom(this.#running, port, device) !== null;
  }

  /** Whether a device answers the laptop: there is a way, and it is not just starting. */
  answers(device: string): boolean {
    return !this.#isStarting(device) && this.reaches(device);
  }

  /** Somebody gives a device power that has none: it is as it came out of the box, its ports on. */
  power(device: Device): void {
    if (!isUnpowered(this.#running, device.id)) return;
    const edits = new PlanEdits(this.#running.plan);
    for (const { id } of this.#running.portsOf(device.id)) edits.patch("port", id, { enabled: true });
    this.#running = must(afterEdits(this.#running, edits), "ports can be switched on");
    this.#saved = this.#as(this.#saved, device, this.#running);
  }

  #as(state: PlanIndex, device: Device, source: PlanIndex): PlanIndex {
    return must(withDeviceAs(state, device, source, this.#index.plan), "a device's own state is one");
  }

  /** What was not saved is gone, and it starts. */
  restart(device: Device): void {
    this.#running = this.#as(this.#running, device, this.#saved);
    this.#startsUntil.set(device.id, this.#now() + RESTART_MS);
  }

  /** It is as it came out of the box, powered, and starts. */
  reset(device: Device): void {
    this.#running = this.#as(this.#running, device, this.#box);
    this.power(device);
    this.#startsUntil.set(device.id, this.#now() + RESET_MS);
  }

  save(device: Device): void {
    this.#saved = this.#as(this.#saved, device, this.#running);
  }

  /** The device takes its whole configuration as YANG data; a sentence why not. */
  take(device: Device, text: string): Result<PlanIndex, string> {
    const after = afterYang({ index: this.#index, asIs: this.#running, device, ids: randomUUID }, text);
    if (after.ok) this.#running = after.value;
    return after;
  }

  /** The device takes settings as the plan names them; a sentence why not. */
  takeSettings(device: Device, changes: readonly Change[]): string | null {
    const other = changes.find((change) => deviceOf(change) !== device.id && change.kind !== "segment");
    if (other !== undefined) return `A ${other.kind} that is not on ${device.name} was told to it.`;
    const state = stateFrom(this.#index, [...changesFrom(this.#box, this.#running), ...changes]);
    if (state === null) return "Parts of it refer to what is nowhere.";
    this.#running = state;
    return null;
  }
}
