"use client";

import {
  chooseRoot,
  setTreeKind,
  setTreePriority,
  setTreeTimer,
  setTreeCosts,
  setTreeInstances,
  setTreeRegion,
} from "@/core/commands";
import { useState } from "react";
import { toast } from "sonner";
import type { Device } from "@/core/plan";
import { instancesText, TREE_TIMERS, type TreeTimer } from "@/core/planners";
import { capital } from "@/core/repairs";
import { treePlace, treesOf, type TreePlace } from "@/core/spanning-tree";
import { useGoTo } from "../../frame/go-to";
import { Choose } from "../../kit/Choose";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { Fact, Section } from "../parts";
import { ProposalPanel, useProposal } from "../findings/Proposal";

const KINDS: readonly (readonly [Device["tree"]["kind"], string])[] = [
  ["none", "none"],
  ["rapid", "rapid (RSTP)"],
  ["multiple", "multiple (MSTP)"],
  ["perVlan", "one for each VLAN"],
];
const ROLES: Readonly<Record<TreePlace["rows"][number]["role"], string>> = {
  root: "root port",
  designated: "designated",
  alternate: "alternate",
  backup: "backup",
  master: "master",
};

/**
 * A device's spanning tree: what it runs, where it stands in the tree, and why each of its ports forwards or
 * stands by.
 */
export function TreeFields({ device }: { device: Device }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const trees = treesOf(index, device);
  const [key, setKey] = useState("");
  const place = treePlace(index, device, key);
  const { tree } = device;
  const set = (kind: Device["tree"]["kind"]) => {
    const refusal = edit(setTreeKind({ device: device.id, kind }));
    if (refusal !== null) toast.error(refusal);
  };
  return (
    <Section title="Spanning tree">
      <Choose label="Runs" value={device.tree.kind} choices={KINDS} onChoose={set} />
      {device.tree.kind === "none" ? null : (
        <TextField
          label="Priority"
          mono
          value={String(device.tree.priority)}
          placeholder="32768"
          write={(text) => edit(setTreePriority({ device: device.id, text }))}
        />
      )}
      {tree.kind === "none" ? null : (
        <Choose
          label="Costs"
          value={tree.costs}
          choices={[
            ["long", "by the standard (long)"],
            ["short", "old 16-bit ones (short)"],
          ]}
          onChoose={(costs) => edit(setTreeCosts({ device: device.id, costs }))}
        />
      )}
      {tree.kind === "none" ? null : <Timers device={device} />}
      {tree.kind !== "multiple" ? null : (
        <>
          <TextField
            label="Region"
            mono
            value={tree.region}
            placeholder="a name, to the letter"
            write={(text) => edit(setTreeRegion({ device: device.id, field: "region", text }))}
          />
          <TextField
            label="Revision"
            mono
            value={String(tree.revision)}
            placeholder="0"
            write={(text) => edit(setTreeRegion({ device: device.id, field: "revision", text }))}
          />
          <TextField
            label="Its trees"
            mono
            value={instancesText(device)}
            placeholder="1: 20, 30 priority 4096; 2: 40"
            write={(text) => edit(setTreeInstances({ device: device.id, text }))}
          />
        </>
      )}
      {trees.length < 2 ? null : (
        <label className="flex min-h-7 items-center gap-2 px-4 text-13">
          <span className="text-ink2">Shown for</span>
          <select
            className="field min-w-0 flex-1"
            value={place?.key ?? ""}
            onChange={(event) => setKey(event.target.value)}
          >
            {trees.map((namedTree) => (
              <option key={namedTree.key} value={namedTree.key}>
                {namedTree.title}
              </option>
            ))}
          </select>
        </label>
      )}
      {place === null ? null : <Place device={device} place={place} />}
    </Section>
  );
}

const TIMERS: readonly TreeTimer[] = ["helloSeconds", "maxAge", "forwardDelay"];

/** The timers of a device's tree; those of the root hold for all. */
function Timers({ device }: { device: Device }) {
  const edit = usePlan((state) => state.edit);
  const timers: readonly TreeTimer[] = device.tree.kind === "multiple" ? [...TIMERS, "hops"] : TIMERS;
  return timers.map((timer) => {
    const { words, unit } = TREE_TIMERS[timer];
    return (
      <TextField
        key={timer}
        label={capital(`${words}${unit === "" ? "" : ` ${unit}`}`)}
        mono
        value={String(device.tree[timer])}
        placeholder=""
        write={(text) => edit(setTreeTimer({ device: device.id, timer, text }))}
      />
    );
  });
}

function Place({ device, place }: { device: Device; place: TreePlace }) {
  const goTo = useGoTo();
  return (
    <>
      <dl className="facts">
        <Fact name="Root">{place.isRoot ? "this one" : place.root.name}</Fact>
        {place.isRoot ? null : (
          <Fact name="Cost to it">
            {place.cost}, over {place.hops === 1 ? "one cable" : `${place.hops} cables`}
          </Fact>
        )}
      </dl>
      {place.byAccident.length === 0 ? null : (
        <p className="mx-4 mb-1 border-l-[3px] border-warn pl-2 text-13 text-warn">
          By accident: {place.byAccident.map((other) => other.name).join(", ")}{" "}
          {place.byAccident.length === 1 ? "has" : "have"} the same priority, so MAC addresses decide, and not
          all of them are known. Choose the root below.
        </p>
      )}
      {place.rows.length === 0 ? null : (
        <ul aria-label="Ports in the tree" className="px-4 text-13">
          {place.rows.map(({ port, role, forwards, why }) => (
            <li key={port.id} className="border-t border-hair py-1">
              <button
                type="button"
                className="flex w-full gap-2 text-left hover:underline"
                onClick={() => goTo.entity({ kind: "port", id: port.id })}
              >
                <span className="mono w-8 font-semibold">{port.label}</span>
                <b className={`font-semibold ${forwards ? "" : "text-warn"}`}>
                  {ROLES[role]}
                  {forwards ? "" : ", blocking"}
                </b>
              </button>
              <p className="pl-10 text-ink2">{why}</p>
            </li>
          ))}
        </ul>
      )}
      <RootChoice device={device} isRoot={place.isRoot} />
    </>
  );
}

/** Makes this device the root and names the one that takes over, shown before it is done. */
function RootChoice({ device, isRoot }: { device: Device; isRoot: boolean }) {
  const index = useIndex();
  const { shown, look, apply, cancel } = useProposal();
  const others = [...index.plan.device.values()].filter(
    (other) => other.id !== device.id && other.tree.kind !== "none",
  );
  const [second, setSecond] = useState("");
  const start = () => {
    const next = second === "" ? null : second;
    const refusal = look(chooseRoot({ root: device.id, second: next }));
    if (refusal !== null) toast.error(refusal);
  };
  return (
    <div className="px-4 pt-2 text-13">
      {others.length === 0 ? null : (
        <label className="flex items-center gap-2 pb-1">
          <span className="text-ink2">Second root</span>
          <select
            className="field min-w-0 flex-1"
            value={second}
            onChange={(event) => {
              setSecond(event.target.value);
              cancel();
            }}
          >
            <option value="">nobody</option>
            {others.map((other) => (
              <option key={other.id} value={other.id}>
                {other.name}
              </option>
            ))}
          </select>
        </label>
      )}
      <button type="button" className="button" onClick={start}>
        {isRoot ? "Settle it as the root" : "Make it the root"}
      </button>
      {shown === null ? null : <ProposalPanel shown={shown} apply={apply} cancel={cancel} />}
    </div>
  );
}
