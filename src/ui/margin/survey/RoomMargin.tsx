"use client";

import { editRoom, moveRoom, removeRooms } from "@/core/commands";
import { toast } from "sonner";
import type { Room } from "@/core/plan";
import { type RoomField } from "@/core/planners";
import { catalogueOf } from "@/core/catalogue";
import { readNeeds, tallyRoom } from "@/core/survey";
import { useUi } from "../../frame/use-ui";
import { Choose } from "../../kit/Choose";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { HistorySection } from "../HistorySection";
import { Caution, Fact, MarginHead, Section } from "../parts";
import { DraftSummary } from "./DraftSummary";

const metres = (room: Room): string => (room.cableCm === null ? "" : String(room.cableCm / 100));

/** One room: where its sockets lead, how its line was read, what can't be read. */
// eslint-disable-next-line max-lines-per-function -- the fields of one room in their order
export function RoomMargin({ id }: { id: string }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const room = index.plan.room.get(id);
  if (room === undefined) return null;
  const tally = tallyRoom(index, room);
  const cabinet = room.cabinet === null ? undefined : index.plan.room.get(room.cabinet);
  const cabinets = [...index.plan.room.values()].filter((room) => room.kind === "cabinet" && room.id !== id);
  const readings = readNeeds(catalogueOf(index.plan), room.needs);
  const readAs = readings.filter((reading) => reading.guessed);
  const problems = readings.flatMap((reading) => reading.problem ?? []);
  const write = (field: RoomField, text: string) => edit(editRoom({ room: id, field, text }));
  const said = (refusal: string | null) => {
    if (refusal !== null) toast.error(refusal);
  };
  return (
    <>
      <MarginHead kick={room.kind === "cabinet" ? "Selected cabinet" : "Selected room"}>
        {room.name}
      </MarginHead>
      <dl className="facts">
        <Fact name="Sockets">
          {tally.sockets}
          {room.kind === "cabinet" ? ", patched inside" : `, to ${cabinet?.name ?? "the first cabinet"}`}
          {room.cableCm === null ? "" : `, ${metres(room)} m away`}
        </Fact>
        {readAs.map((reading) => (
          <Fact key={reading.start} name="Read as">
            “{room.needs.slice(reading.start, reading.end)}” = {reading.readAs}
          </Fact>
        ))}
      </dl>
      {problems.length === 0 ? null : (
        <div className="mx-4 mb-2 border-l-[3px] border-stop pl-3 text-13 text-stop" role="alert">
          {problems.map((problem) => (
            <p key={problem}>{problem}</p>
          ))}
          <button type="button" className="button wrap mt-1" onClick={() => select({ what: "kinds" })}>
            Kinds of device
          </button>
        </div>
      )}
      {room.kind === "outdoor" ? (
        <Caution head="Outside.">
          Height, lightning protection and outdoor surge protection follow the local code; climb only by its
          rules.
        </Caution>
      ) : null}
      {room.kind === "cabinet" ? (
        <Caution head="Mains in the cabinet.">
          Isolate first; fixed wiring belongs to licensed people.
        </Caution>
      ) : null}
      <Section title="Change">
        <TextField label="Name" value={room.name} write={(text) => write("name", text)} />
        <TextField
          label="Needs"
          value={room.needs}
          placeholder="3 PC, 2 phone+PC"
          write={(text) => write("needs", text)}
        />
        <Choose
          label="Kind"
          value={room.kind}
          choices={[
            ["room", "room"],
            ["cabinet", "cabinet"],
            ["outdoor", "outdoors"],
          ]}
          onChoose={(kind) => said(write("kind", kind))}
        />
        {room.kind === "cabinet" ? (
          <TextField
            label="Height U"
            value={room.heightUnits === null ? "" : String(room.heightUnits)}
            placeholder="rack units"
            mono
            write={(text) => write("height", text)}
          />
        ) : (
          <>
            <Choose
              label="Leads to"
              value={cabinet?.name ?? ""}
              choices={[
                ["", "the first cabinet"],
                ...cabinets.map((room) => [room.name, room.name] as const),
              ]}
              onChoose={(name) => said(write("cabinet", name))}
            />
            <TextField
              label="Metres to it"
              value={metres(room)}
              placeholder="18"
              mono
              write={(text) => write("cable", text)}
            />
          </>
        )}
        <TextField
          label="Building"
          value={room.building}
          placeholder="the house, the barn"
          write={(text) => write("building", text)}
        />
        <TextField
          label="Beside"
          value={room.beside.map((room) => index.plan.room.get(room)?.name ?? "").join(", ")}
          placeholder="rooms whose wireless is heard"
          write={(text) => write("beside", text)}
        />
        <TextField
          label="Group"
          value={room.group}
          placeholder="a flat, a department, a cell"
          write={(text) => write("group", text)}
        />
      </Section>
      <DraftSummary />
      <div className="section flex gap-[6px] px-4 pt-3">
        <button type="button" className="button" onClick={() => edit(moveRoom({ room: id, by: -1 }))}>
          Up
        </button>
        <button type="button" className="button" onClick={() => edit(moveRoom({ room: id, by: 1 }))}>
          Down
        </button>
        <button
          type="button"
          className="button danger"
          onClick={() => {
            said(edit(removeRooms({ rooms: [id] })));
            select(null);
          }}
        >
          Remove
        </button>
      </div>
      <HistorySection about={id} />
    </>
  );
}
