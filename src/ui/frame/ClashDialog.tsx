"use client";

import { nameOf } from "@/core/plan";
import { clashSides } from "@/core/formats";
import { Modal } from "../kit/Modal";
import { useHeld, usePlan } from "../plan-store/use-plan";

/** Somebody else changed the same field first: both values are shown, and a person decides. */
export function ClashDialog() {
  const stuck = usePlan((state) => state.stuck);
  const resolve = usePlan((state) => state.resolve);
  const { index } = useHeld();
  if (stuck === null) return null;
  return (
    <Modal open onOpenChange={() => resolve("theirs")} title="Somebody changed the same" wide
      description={`Your change "${stuck.batch.summary}" is not saved yet: meanwhile somebody else has changed the same. Nothing is lost until you decide.`}>
      {stuck.clashes.length === 0 ? null : (
        <table className="table mb-4">
          <thead><tr><th scope="col">What</th><th scope="col">Field</th><th scope="col">Yours</th><th scope="col">Theirs</th></tr></thead>
          <tbody>
            {stuck.clashes.map((clash) => {
              const sides = clashSides(index, clash);
              return <tr key={`${clash.id} ${clash.field}`}><td>{nameOf(index, clash.kind, clash.id)}</td><td>{sides.field}</td><td>{sides.mine}</td><td>{sides.theirs}</td></tr>;
            })}
          </tbody>
        </table>
      )}
      <div className="flex gap-2">
        <button type="button" className="button go" onClick={() => resolve("theirs")}>Keep theirs, drop mine</button>
        <button type="button" className="button" onClick={() => resolve("mine")}>Mine is right</button>
      </div>
    </Modal>
  );
}
