"use client";

import { openZone, putInConduit, renameZone, setWall, setZone } from "@/core/commands";
import { useState } from "react";
import {
  CONTROL_LEVELS,
  nameOf,
  wallEndName,
  type Service,
  type Wall,
  type WallEnd,
  type Zone,
} from "@/core/plan";
import { LEVEL_WORDS, parseService, securityLevelText } from "@/core/planners";
import { catalogueOf, servicesCalled, serviceText, wallBetween } from "@/core/policy";
import { grouped } from "@/core/kernel";
import { Choose } from "../../kit/Choose";
import { Radios } from "../../kit/Radios";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { FindingsSection } from "../findings/FindingsSection";
import { HistorySection } from "../HistorySection";
import { ByTheLists } from "./ByTheLists";
import { Caution, Fact, MarginHead, Section } from "../parts";

const DOORS: readonly [Wall["door"], string][] = [
  ["closed", "Closed"],
  ["services", "Door for these services"],
  ["open", "Open to everything"],
];

/** One wall, or a zone to itself. */
export function WallMargin({ from, to }: { from: WallEnd; to: WallEnd }) {
  return from.at === "zone" && to.at === "zone" && from.zone === to.zone ? (
    <ZoneMargin id={from.zone} />
  ) : (
    <WallBetween from={from} to={to} />
  );
}

/** Inside one zone: whether its own segments may talk to one another. */
function ZoneMargin({ id }: { id: string }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const zone = index.plan.zone.get(id);
  if (zone === undefined) return null;
  const segments = index.groups("segmentsByZone").get(id) ?? [];
  const industrial = index.plan.site.kind === "industrial";
  const rename = (text: string) => {
    const name = text.trim();
    if (name === "" || name.length > 80) return "A zone's name has 1 to 80 characters.";
    return edit(renameZone({ zone: id, name }));
  };
  return (
    <>
      <MarginHead kick="Selected zone">{zone.name}</MarginHead>
      <dl className="facts">
        <Fact name="Segments">{segments.map((segment) => segment.name).join(", ") || "none"}</Fact>
      </dl>
      <Section title="Change">
        <TextField label="Name" value={zone.name} write={rename} />
        <label className="flex min-h-7 items-center gap-2 px-4 text-13">
          <input
            type="checkbox"
            checked={zone.insideOpen}
            onChange={(event) => edit(openZone({ zone: id, open: event.target.checked }))}
          />
          Its own segments may talk to one another
        </label>
        {industrial ? <LevelFields zone={zone} /> : null}
      </Section>
      <HistorySection about={id} />
    </>
  );
}

/** How near to the machine a zone is, and how well it shall be kept. */
function LevelFields({ zone }: { zone: Zone }) {
  const edit = usePlan((state) => state.edit);
  return (
    <>
      <Choose
        label="Level of control"
        value={zone.level}
        choices={CONTROL_LEVELS.map((level) => [level, LEVEL_WORDS[level]] as const)}
        onChoose={(level) => edit(setZone({ zone: zone.id, fields: { level } }))}
      />
      <Choose
        label="Target level"
        value={String(zone.securityLevel)}
        choices={["0", "1", "2", "3", "4"].map((text) => [text, securityLevelText(Number(text))] as const)}
        onChoose={(text) => edit(setZone({ zone: zone.id, fields: { securityLevel: Number(text) } }))}
      />
    </>
  );
}

/** The conduit that a door belongs to; a name that there is not yet makes one. */
function ConduitField({ wall }: { wall: Wall }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  return (
    <TextField
      label="Conduit"
      value={wall.conduit === null ? "" : nameOf(index, "conduit", wall.conduit)}
      placeholder="its name; a new one is made"
      write={(name) => edit(putInConduit({ wall: wall.id, name }))}
    />
  );
}

/** Between two ends: closed, a door for some services, or open; and why. */
// eslint-disable-next-line max-lines-per-function -- one wall: what passes, why, and its services
function WallBetween({ from, to }: { from: WallEnd; to: WallEnd }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const wall = wallBetween(index, from, to);
  const [wantsServices, setWantsServices] = useState(false);
  const [added, setAdded] = useState(0);
  const name = `${wallEndName(index, from)} to ${wallEndName(index, to)}`;
  const unwritten = wantsServices ? "services" : "closed";
  const door = wall === null ? unwritten : wall.door;
  const services = wall?.services ?? [];
  const write = (next: Wall["door"], list: readonly Service[], reason: string) => {
    return edit(setWall({ from, to, door: next, services: list, reason }));
  };
  const choose = (next: Wall["door"]) => {
    setWantsServices(next === "services");
    if (next !== "services") write(next, [], wall?.reason ?? "");
    else if (wall?.door === "open") write("closed", [], "");
  };
  const toggle = (parts: readonly Service[], on: boolean) => {
    const names = new Set(parts.map(({ name }) => name));
    const others = services.filter(({ name }) => !names.has(name));
    const list = on ? [...others, ...parts] : others;
    setWantsServices(true);
    write(list.length === 0 ? "closed" : "services", list, wall?.reason ?? "");
  };
  const catalogue = catalogueOf(index.plan);
  const offered = grouped(
    [...catalogue, ...services.filter((s) => servicesCalled(index.plan, s.name).length === 0)],
    ({ name }) => name,
  );
  const industrial = index.plan.site.kind === "industrial";
  return (
    <>
      <MarginHead kick="Selected wall">{name}</MarginHead>
      <dl className="facts">
        <Fact name="Lets through">
          {door === "open" ? "everything" : services.map(serviceText).join("; ") || "nothing"}
        </Fact>
        <Fact name="Back">answers always return</Fact>
      </dl>
      <Section title="Change">
        <Radios label="Wall" value={door} choices={DOORS} onChoose={choose} />
        {door === "services" ? (
          <>
            <fieldset className="mt-2 grid grid-cols-2 px-4 text-13">
              <legend className="sr-only">Services</legend>
              {[...offered].map(([name, parts]) => (
                <label
                  key={name}
                  title={parts.map(serviceText).join("; ")}
                  className="flex min-h-6 items-center gap-2"
                >
                  <input
                    type="checkbox"
                    checked={services.some((s) => s.name === name)}
                    onChange={(event) => toggle(parts, event.target.checked)}
                  />
                  {name}
                </label>
              ))}
            </fieldset>
            <TextField
              key={added}
              label="Another"
              value=""
              mono
              placeholder="backup tcp 8007"
              write={(text) => {
                const read = parseService(text);
                if ("refusal" in read) return read.refusal;
                toggle([read.service], true);
                setAdded(added + 1);
                return null;
              }}
            />
          </>
        ) : null}
        {wall === null || (!industrial && index.plan.conduit.size === 0) ? null : (
          <ConduitField wall={wall} />
        )}
        {wall === null ? null : (
          <TextField
            label="Reason"
            value={wall.reason}
            placeholder="who needs it, and what for"
            write={(text) =>
              text.length > 120
                ? "A reason has at most 120 characters."
                : write(wall.door, services, text.trim())
            }
          />
        )}
      </Section>
      {wall === null ? null : <FindingsSection ids={new Set([wall.id])} />}
      <ByTheLists from={from} to={to} />
      {industrial ? (
        <Caution head="Moving machine.">
          Opening a wall to a cell can move or stop a machine: get the process owner’s consent and a safe
          window first. Emergency stops never depend on this plan.
        </Caution>
      ) : null}
      {wall === null ? null : <HistorySection about={wall.id} />}
    </>
  );
}
