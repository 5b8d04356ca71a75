"use client";

import { useEffect, useMemo, useState } from "react";
import { decodeChanges, encodeChanges } from "@/core/formats";
import { nameOf, type Device, type PlanIndex } from "@/core/plan";
import { leaseAt } from "@/core/probe";
import { requestFor } from "@/core/readback";
import { changesFrom, stateFrom } from "@/core/records";
import {
  foundState,
  isUnpowered,
  operationWords,
  Rehearsal,
  setUpDevices,
  wayFrom,
  type Operation,
  type Runbook,
} from "@/core/runbook";
import { Combo } from "../../kit/Combo";
import { Last, Log } from "./StandInLog";
import { useBench, type Act } from "./stand-in-store";
import { foundIndex, type Found } from "./use-runbook";

interface StandInsProps {
  readonly index: PlanIndex;
  /** The plan's revision; null as long as the server does not have all of what is shown. */
  readonly revision: number | null;
  readonly found: Found;
  readonly runbook: Runbook;
}

/** How often devices of another plan than the one on the screen are looked at. */
const LOOK_EVERY_MS = 1_000;

/**
 * The same work on devices that stand in for the planned ones and answer over the network, from where the
 * laptop is: a wrong order locks one out, as it would on site.
 */
export function StandIns({ index, revision, found, runbook }: StandInsProps) {
  const { state, fault, isBusy: isAsking, log, look, act, forget } = useBench(index.plan.site.id);
  const isApart = revision === null || (state !== null && state.revision !== revision);
  const isBusy = isAsking || isApart;
  useEffect(() => void look(), [look, revision]);
  useEffect(() => {
    if (!isApart) return;
    const timer = setInterval(() => void look(), LOOK_EVERY_MS);
    return () => clearInterval(timer);
  }, [isApart, look]);
  const asIs = useMemo(
    () => (state === null ? null : stateFrom(index, decodeChanges(state.changes))),
    [index, state],
  );
  const isStarting = (state?.starting.length ?? 0) > 0;
  useEffect(() => {
    if (!isStarting) return;
    const timer = setInterval(() => void look(), 500);
    return () => clearInterval(timer);
  }, [isStarting, look]);
  const begin = () => {
    const [box, was] = [foundState(index, null), foundIndex(index, found)];
    if (box === null || was === null) return;
    forget();
    void act({
      what: "From the start",
      body: { do: "begin", changes: encodeChanges(changesFrom(box, was)) },
      byHand: "Every device is as it is found, and the laptop is nowhere.",
    });
  };
  return (
    <div className="min-h-0 flex-1 overflow-auto print:hidden">
      {fault === null ? null : (
        <p
          role="alert"
          className="flex flex-wrap items-center gap-3 border-b border-hair px-4 py-2 text-13 text-stop"
        >
          {fault}
          <button type="button" className="button" onClick={() => void look()}>
            Try again
          </button>
        </p>
      )}
      {isApart ? <Apart isSent={revision !== null} /> : null}
      {state === null || asIs === null ? null : (
        <>
          <Desk
            index={index}
            asIs={asIs}
            runbook={runbook}
            laptop={state.laptop}
            isBusy={isBusy}
            act={(chosen) => void act(chosen)}
            begin={begin}
          />
          <Last log={log} />
          <div className="grid min-[1500px]:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]">
            <DeviceList
              index={index}
              asIs={asIs}
              state={state}
              isBusy={isBusy}
              act={(chosen) => void act(chosen)}
            />
            <Log log={log} />
          </div>
        </>
      )}
    </div>
  );
}

/** Why nothing can be sent just now: the stand-ins are devices of another plan than the one on the screen. */
function Apart({ isSent }: { isSent: boolean }) {
  return (
    <p role="status" className="border-b border-hair px-4 py-2 text-13 text-warn">
      {isSent
        ? "The stand-ins are devices of another revision of the plan than this page shows. "
        : "The server does not have the last edits yet: the stand-ins are devices of the plan before them. "}
      Nothing is sent until both are the same.
    </p>
  );
}

interface DeskProps {
  readonly index: PlanIndex;
  readonly asIs: PlanIndex;
  readonly runbook: Runbook;
  readonly laptop: string | null;
  readonly isBusy: boolean;
  readonly act: (act: Act) => void;
  readonly begin: () => void;
}

/** An operation as what is asked: power is given by hand, all else is told to the device over the network. */
function actOf(index: PlanIndex, asIs: PlanIndex, operation: Operation): Act | null {
  const { device, page } = operation;
  const name = nameOf(index, "device", device);
  const what = `${name}: ${operationWords(index, operation).title}`;
  if (page === "power")
    return {
      what,
      body: { do: "power", device },
      byHand: `${name} has power; it is as it came out of the box.`,
    };
  const request = requestFor(index, asIs, operation);
  if (request === null) return null;
  const asking = { what: "enter", ...request };
  const body = {
    do: "ask",
    device,
    asking: request.says === "yang" ? asking : { ...asking, changes: encodeChanges(request.changes) },
  };
  return { what, body };
}

/** What the order that was found has next of what can be done now, and where the laptop is for it. */
function orderedNext(
  index: PlanIndex,
  runbook: Runbook,
  next: readonly { readonly id: string; readonly name: string }[],
): { readonly operation: string; readonly port: string | null } | null {
  for (const { operation, device, title, card } of runbook.steps) {
    if (operation === null || device === null) continue;
    const name = `${nameOf(index, "device", device)}: ${title}`;
    const now = next.find((standIn) => standIn.name === name);
    if (now !== undefined) return { operation: now.id, port: card?.port ?? null };
  }
  return null;
}

/** Where the laptop is, and what is done next. */
function Desk({ index, asIs, runbook, laptop, isBusy, act, begin }: DeskProps) {
  const rehearsal = useMemo(() => Rehearsal.of(index, asIs), [index, asIs]);
  const ports = useMemo(() => rehearsal?.ports() ?? [], [rehearsal]);
  const next = useMemo(() => rehearsal?.after([]).next ?? [], [rehearsal]);
  const [chosen, setChosen] = useState("");
  const operation = rehearsal?.operation(chosen) ?? null;
  const ordered = orderedNext(index, runbook, next);
  const asOrdered = () => {
    if (ordered === null) return;
    if (ordered.port !== null && ordered.port !== laptop) plug(ordered.port);
    setChosen(ordered.operation);
  };
  const send = () => {
    const next = operation === null ? null : actOf(index, asIs, operation);
    if (next !== null) act(next);
    setChosen("");
  };
  const plug = (port: string) =>
    act({
      what: "The laptop",
      body: { do: "plug", port },
      byHand: `is plugged into ${nameOf(index, "port", port)} now.`,
    });
  return (
    <div className="flex flex-wrap items-center gap-3 border-b border-hair px-4 py-3 text-13">
      <span className="text-ink2">The laptop is at</span>
      <Combo
        label="The laptop is at"
        value={laptop ?? ""}
        choices={ports.map(({ id, name }) => ({ value: id, label: name }))}
        onChoose={plug}
        empty={laptop === null ? "no port yet" : nameOf(index, "port", laptop)}
      />
      <span className="text-ink2">Do next</span>
      <Combo
        label="Do next"
        value={chosen}
        choices={next.map(({ id, name }) => ({ value: id, label: name }))}
        onChoose={setChosen}
        empty={next.length === 0 ? "nothing is left" : "nothing yet"}
      />
      <button type="button" className="button go" disabled={operation === null || isBusy} onClick={send}>
        Send it
      </button>
      <button type="button" className="button" disabled={ordered === null || isBusy} onClick={asOrdered}>
        As the order has it
      </button>
      <button type="button" className="button" disabled={isBusy} onClick={begin}>
        From the start
      </button>
      {laptop === null ? null : <ByDhcp asIs={asIs} port={laptop} />}
      {next.length === 0 ? (
        <span role="status" className="text-sound">
          ✓ Everything is on the devices as planned.
        </span>
      ) : null}
    </div>
  );
}

/** What the laptop gets where it is, if it asks for its address there. */
function ByDhcp({ asIs, port }: { asIs: PlanIndex; port: string }) {
  const lease = useMemo(() => leaseAt(asIs, port), [asIs, port]);
  return (
    <span role="status" className="text-ink2">
      {lease === null
        ? "By DHCP it gets no address there."
        : `By DHCP it gets an address there from ${lease.server}.`}
    </span>
  );
}

interface ListProps {
  readonly index: PlanIndex;
  readonly asIs: PlanIndex;
  readonly state: {
    readonly unsaved: readonly string[];
    readonly starting: readonly string[];
    readonly laptop: string | null;
  };
  readonly isBusy: boolean;
  readonly act: (act: Act) => void;
}

/** Above so many devices it is not worked out for each whether it answers. */
const MOST_ASKED = 40;

/** The devices as one who stands before them sees them. */
function DeviceList({ index, asIs, state, isBusy, act }: ListProps) {
  const devices = useMemo(() => setUpDevices(index), [index]);
  const { laptop, unsaved, starting } = state;
  const reached = useMemo(
    () =>
      new Set(
        laptop === null || devices.length > MOST_ASKED
          ? []
          : devices.flatMap(({ id }) => (wayFrom(asIs, laptop, id) === null ? [] : [id])),
      ),
    [asIs, devices, laptop],
  );
  return (
    <ul aria-label="Stand-in devices" className="text-13">
      {devices.map((device) => (
        <DeviceRow
          key={device.id}
          device={device}
          isOff={isUnpowered(asIs, device.id)}
          isStarting={starting.includes(device.id)}
          isUnsaved={unsaved.includes(device.id)}
          isReached={devices.length > MOST_ASKED ? null : reached.has(device.id)}
          isBusy={isBusy}
          act={act}
        />
      ))}
    </ul>
  );
}

interface RowProps {
  readonly device: Device;
  readonly isOff: boolean;
  readonly isStarting: boolean;
  readonly isUnsaved: boolean;
  /** Null where nobody has worked it out. */
  readonly isReached: boolean | null;
  readonly isBusy: boolean;
  readonly act: (act: Act) => void;
}

function stateWords({ isOff, isStarting, isReached }: RowProps): readonly [words: string, colour: string] {
  if (isOff) return ["no power", "text-ink2"];
  if (isStarting) return ["starting", "text-warn"];
  if (isReached === null) return ["", ""];
  return isReached ? ["✓ answers the laptop", "text-sound"] : ["silent to the laptop", "text-ink2"];
}

function DeviceRow(props: RowProps) {
  const { device, isOff, isUnsaved, isBusy, act } = props;
  const { id, name } = device;
  const [words, colour] = stateWords(props);
  const button = (label: string, does: Act, isOn = true) => (
    <button
      type="button"
      className="button"
      aria-label={`${label}: ${name}`}
      disabled={!isOn || isBusy}
      onClick={() => act(does)}
    >
      {label}
    </button>
  );
  return (
    <li className="flex flex-wrap items-center gap-2 border-b border-hair px-4 py-1">
      <span className="min-w-0 flex-1 basis-32">
        <b className="font-semibold">{name}</b>
        <span className={`block text-12 ${colour}`}>
          {words}
          {isUnsaved ? <span className="text-warn">{words === "" ? "" : "; "}not saved</span> : null}
        </span>
      </span>
      {button(
        "Save",
        { what: `${name}: save`, body: { do: "ask", device: id, asking: { what: "save" } } },
        !isOff,
      )}
      {button(
        "Power cut",
        {
          what: name,
          body: { do: "powerCut", device: id },
          byHand: "starts again; what was not saved is gone.",
        },
        !isOff,
      )}
      {button("Reset", {
        what: name,
        body: { do: "reset", device: id },
        byHand: "starts as it came out of the box.",
      })}
    </li>
  );
}
