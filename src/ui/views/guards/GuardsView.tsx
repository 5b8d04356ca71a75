"use client";

import { useState } from "react";
import { counted } from "@/core/repairs";
import { byNaturalText } from "@/core/kernel";
import { signInPorts, type Device } from "@/core/plan";
import { TREE } from "@/core/spanning-tree";
import { useUi } from "../../frame/use-ui";
import { Segmented } from "../../kit/Segmented";
import { useIndex } from "../../plan-store/use-plan";
import { GuardTable } from "./GuardTable";
import { RegionTable } from "./RegionTable";
import { SignInSheet } from "./SignInSheet";
import { TreeDrawing } from "./TreeDrawing";

const WAYS = [
  ["tree", "Trees"],
  ["regions", "Regions"],
  ["signIn", "Sign-in"],
  ["guards", "Guards"],
] as const;

/**
 * What switches do against loops and false servers: the trees that they settle on, and each device's guards.
 */
export function GuardsView() {
  const index = useIndex();
  const selected = useUi((state) => state.selection?.what);
  const isOfSignIn = selected === "signIn" || selected === "entry";
  const [way, setWay] = useState<(typeof WAYS)[number][0]>(isOfSignIn ? "signIn" : "tree");
  const [before, setBefore] = useState(selected);
  // What is gone to by name or by a finding is shown; what is then chosen here stays.
  if (selected !== before) {
    setBefore(selected);
    if (isOfSignIn) setWay("signIn");
  }
  const able = [...index.plan.device.values()]
    .filter((device) => device.bridging === "vlan" && device.kind !== "gateway")
    .sort((a, b) => byNaturalText(a.name, b.name));
  const running = able.filter((device) => device.tree.kind !== "none").length;
  const asking = signInPorts(index).length;
  return (
    <main className="sheet">
      <div className="head">
        <h1>Switch guards</h1>
        <p>
          {way === "signIn"
            ? `${counted(asking, "port asks", "ports ask")} for a sign-in`
            : `${counted(running, "bridge runs", "bridges run")} a spanning tree`}
        </p>
        <span className="push" />
        <Segmented label="Show" value={way} choices={WAYS} onChoose={setWay} />
      </div>
      {way === "guards" ? <GuardTable devices={able} /> : null}
      {way === "regions" ? <RegionTable /> : null}
      {way === "signIn" ? <SignInSheet asking={asking} /> : null}
      {way === "tree" ? <Trees first={able.find(({ kind }) => kind === "switch") ?? able[0]} /> : null}
    </main>
  );
}

/** The trees that bridges settle on; `first` is the bridge to begin with where there is none yet. */
function Trees({ first }: { first: Device | undefined }) {
  const index = useIndex();
  const [key, setKey] = useState("common");
  const select = useUi((state) => state.select);
  const { named } = index.derived(TREE);
  const trees = named.filter(({ tree }) => tree.rootOf.size > 0);
  const shown = trees.find((namedTree) => namedTree.key === key) ?? trees[0];
  if (shown === undefined)
    return (
      <p className="max-w-[60ch] p-4 text-15">
        No gear runs a spanning tree yet. Where cables form a ring, one has to block; choose a switch and the
        kind of its tree in the margin.{" "}
        {first === undefined ? (
          "Add the switches on Hardware first."
        ) : (
          <button type="button" className="button" onClick={() => select({ what: "device", id: first.id })}>
            Begin with {first.name}
          </button>
        )}
      </p>
    );
  return (
    <>
      {trees.length > 1 ? (
        <div className="flex items-center gap-2 border-b border-hair px-4 py-2 text-13">
          <label className="flex items-center gap-2">
            Tree
            <select className="field" value={shown.key} onChange={(event) => setKey(event.target.value)}>
              {trees.map((namedTree) => (
                <option key={namedTree.key} value={namedTree.key}>
                  {namedTree.title}
                </option>
              ))}
            </select>
          </label>
        </div>
      ) : null}
      <TreeDrawing named={shown} />
    </>
  );
}
