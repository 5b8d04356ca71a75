"use client";

import { addRoom, clearRooms, editRoom, removeRooms, pasteNeeds, pasteRooms } from "@/core/commands";
import { useMemo, useRef } from "react";
import { toast } from "sonner";
import { formatPrefix } from "@/core/address";
import type { Line, PlanIndex } from "@/core/plan";
import { catalogueOf } from "@/core/catalogue";
import { readNeeds, tallySurvey, type RoomTally, type SurveyTally } from "@/core/survey";
import { useUi } from "../../frame/use-ui";
import type { Column, GridActions } from "../../grid/column";
import { writtenCells } from "../../grid/written-cells";
import { EditGrid } from "../../grid/EditGrid";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { NeedsText } from "./NeedsText";
import { ReadingStrip } from "./ReadingStrip";

type RoomColumn = "name" | "needs" | "sockets" | "hosts" | "poe";
const watts = (mw: number): string => (mw / 1000).toFixed(1);
const figure = (n: number): string => (n === 0 ? "–" : String(n));

function columnsOf(index: PlanIndex): Column<RoomTally, RoomColumn>[] {
  const catalogue = catalogueOf(index.plan);
  return [
    {
      id: "name",
      head: "Room",
      title: "room",
      width: "132px",
      text: ({ room }) => room.name,
      show: ({ room }) => (
        <span className="inline-flex items-center gap-2">
          {room.name}
          {room.kind === "room" ? null : <span className="text-12 text-ink2">{room.kind}</span>}
        </span>
      ),
    },
    {
      id: "needs",
      head: "Needs",
      title: "needs",
      text: ({ room }) => room.needs,
      show: ({ room }) => <NeedsText line={room.needs} readings={readNeeds(catalogue, room.needs)} />,
      reading: (row, text) => <ReadingStrip index={index} room={row?.room ?? null} line={text} />,
    },
    {
      id: "sockets",
      head: "Sockets",
      title: "sockets",
      align: "right",
      mono: true,
      derived: true,
      text: ({ sockets }) => String(sockets),
      show: ({ sockets, room }) =>
        room.kind === "cabinet" ? (
          <span title="patched inside the cabinet">{figure(sockets)}</span>
        ) : (
          figure(sockets)
        ),
    },
    {
      id: "hosts",
      head: "Hosts",
      title: "hosts",
      align: "right",
      mono: true,
      derived: true,
      text: ({ hosts }) => String(hosts),
      show: ({ hosts }) => figure(hosts),
    },
    {
      id: "poe",
      head: "PoE W",
      title: "power over the cable in watts",
      align: "right",
      mono: true,
      derived: true,
      text: ({ poeMw }) => watts(poeMw),
      show: ({ poeMw }) => (poeMw === 0 ? "–" : watts(poeMw)),
    },
  ];
}

const isWritten = (column: RoomColumn): column is "name" | "needs" => column === "name" || column === "needs";

/** Who and what has to be connected where, as the installer says it; below it what that comes to. */
export function SurveyView() {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const selection = useUi((state) => state.selection);
  const scroller = useRef<HTMLDivElement>(null);
  const tally = useMemo(() => tallySurvey(index), [index]);
  const add = (name: string, needs = "") => edit(addRoom({ name, needs }));
  const freeName = (word: string) => {
    for (let n = 1; ; n += 1)
      if (![...index.plan.room.values()].some((room) => room.name === `${word} ${n}`)) return `${word} ${n}`;
  };
  const actions: GridActions<RoomColumn> = {
    edit: (id, column, text) => {
      if (!isWritten(column)) return null;
      const room = id === null ? undefined : index.plan.room.get(id);
      if (room === undefined) return column === "name" ? add(text) : add(freeName("Room"), text);
      return edit(editRoom({ room: room.id, field: column, text }));
    },
    paste: (rows, from, onto) =>
      edit(
        from === "name"
          ? pasteRooms({ rows })
          : pasteNeeds({
              needs: rows.map(([text = ""]) => text),
              onto,
              names: rows.map((_, i) => `${freeName("Room")}${i === 0 ? "" : `.${i}`}`),
            }),
      ),
    clear: (cells) => edit(clearRooms({ cells: writtenCells(cells, isWritten) })),
    remove: (ids) => {
      const refusal = edit(removeRooms({ rooms: ids }));
      if (refusal !== null) toast.error(refusal);
    },
    select: (id) => select(id === null ? null : { what: "room", id }),
  };
  return (
    <main className="sheet">
      <div className="head">
        <h1>Survey</h1>
        <p>one line a room, as you would say it: number, then what</p>
        <span className="push" />
        <button
          type="button"
          className="button"
          onClick={() => {
            const refusal = add(freeName("Room"));
            if (refusal !== null) toast.error(refusal);
          }}
        >
          Add room
        </button>
      </div>
      <Surroundings index={index} />
      <div ref={scroller} tabIndex={-1} className="min-h-0 flex-1 overflow-auto">
        <EditGrid<RoomTally, RoomColumn>
          label="Survey"
          rows={tally.rooms}
          idOf={({ room }) => room.id}
          columns={columnsOf(index)}
          actions={actions}
          scroller={scroller}
          selected={selection?.what === "room" ? selection.id : null}
          newRow={{
            name: "New room",
            needs:
              tally.rooms.length === 0
                ? "3 PC, 2 phone+PC, 1 card terminal"
                : "Enter on the last line adds one",
          }}
        />
        {tally.rooms.length === 0 ? <EmptySurvey /> : <div className="h-6" />}
      </div>
      <TallyBar tally={tally} />
    </main>
  );
}

const EmptySurvey = () => (
  <div className="max-w-[64ch] p-4 text-15">
    <p className="mb-2">
      Begin here with what you see: a row for each room and each cabinet, and in it who and what has to be
      connected. It is read as you type; sockets, addresses and watts add up below.
    </p>
    <p className="text-ink2">
      Rows of a spreadsheet can be pasted, too: room, needs, cabinet, metres to it, group. Then “Draft the
      plan” turns it into segments, subnets, ports and walls, and shows you all of it first.
    </p>
  </div>
);

const ACCESS = {
  fibre: "fibre",
  cable: "cable",
  dsl: "DSL",
  mobile: "mobile",
  radio: "radio",
  other: "line",
} as const;
const BOX = { none: "none", routes: "routes", bridges: "bridges", cannotBridge: "cannot bridge" } as const;

const ADDRESSING = { login: "login", fixed: "fixed address", dhcp: "address by DHCP" } as const;
const CARRIER_NAT = {
  yes: "behind carrier-grade NAT",
  unknown: "carrier-grade NAT not known",
  no: "public address",
} as const;

function lineText(line: Line): string {
  return [
    ACCESS[line.access],
    line.downMbps > 0 ? `${line.downMbps}${line.upMbps > 0 ? `/${line.upMbps}` : ""} Mbit/s` : "",
    line.vlanTag === null ? "no tag" : `tag ${line.vlanTag}`,
    ADDRESSING[line.addressing],
    CARRIER_NAT[line.carrierNat],
  ]
    .filter((part) => part !== "")
    .join(", ");
}

/**
 * What is there before the work: lines, the provider's box, gear, the site's conventions; each opens in the
 * margin.
 */
function Surroundings({ index }: { index: PlanIndex }) {
  const select = useUi((state) => state.select);
  const lines = [...index.plan.line.values()];
  const gear = [...index.plan.gear.values()];
  const { conventions } = index.plan.site;
  const open = "min-h-6 text-left underline decoration-rule underline-offset-2 hover:text-act";
  return (
    <dl className="grid flex-none grid-cols-[132px_1fr] border-b border-hair px-4 py-2 text-13 leading-5">
      {lines.map((line) => (
        <div key={line.id} className="contents">
          <dt className="text-ink2">{line.name}</dt>
          <dd>
            <button type="button" className={open} onClick={() => select({ what: "line", id: line.id })}>
              {lineText(line)}
            </button>
            {line.providerBox === "none" ? null : (
              <span className="text-ink2">
                ; provider’s box {BOX[line.providerBox]}
                {line.boxPrefix === null ? (
                  ""
                ) : (
                  <>
                    , inside <span className="mono">{formatPrefix(line.boxPrefix)}</span>
                  </>
                )}
                {line.locked === "" ? "" : `; locked to it: ${line.locked}`}
              </span>
            )}
          </dd>
        </div>
      ))}
      {lines.length === 0 ? (
        <>
          <dt className="text-ink2">Internet line</dt>
          <dd>
            <button type="button" className={open} onClick={() => select({ what: "lines" })}>
              none yet: add one
            </button>
          </dd>
        </>
      ) : null}
      <dt className="text-ink2">Gear found</dt>
      <dd>
        <button type="button" className={open} onClick={() => select({ what: "gear", id: null })}>
          {gear.length === 0
            ? "none yet: add what is there"
            : gear.map((gear) => `${gear.name} (${gear.fate})`).join(", ")}
        </button>
      </dd>
      <dt className="text-ink2">Conventions</dt>
      <dd>
        <button type="button" className={open} onClick={() => select({ what: "conventions" })}>
          VLANs from {conventions.vidStart} by {conventions.vidStep},{" "}
          {conventions.subnetScheme === "octet" ? "number in octet 3" : "subnets packed"}, gateway{" "}
          {conventions.gatewayAt}, {conventions.staticSize} static at the {conventions.staticAt}, growth{" "}
          {conventions.growth} %
        </button>
      </dd>
    </dl>
  );
}

function TallyBar({ tally }: { tally: SurveyTally }) {
  const select = useUi((state) => state.select);
  const figures: [string | number, string][] = [
    [tally.sockets, "sockets"],
    [tally.inCabinets, "in the cabinets"],
    [tally.hosts, "hosts now"],
    [tally.planned, "planned, with growth"],
    [watts(tally.poeMw), "W over the cable"],
    [tally.accessPoints, "APs"],
  ];
  return (
    <section
      aria-label="Tally"
      className="flex min-h-[68px] flex-none items-stretch overflow-x-auto border-t border-ink bg-paper"
    >
      {figures.map(([value, words]) => (
        <div key={words} className="flex flex-col justify-center border-r border-hair px-[10px] first:pl-4">
          <b className="mono text-22 leading-[26px] font-semibold">{value}</b>
          <span className="text-12 whitespace-nowrap text-ink2">{words}</span>
        </div>
      ))}
      <button
        type="button"
        className="button go m-3 ml-auto flex-none self-center !min-h-10 !px-[14px] !text-15"
        disabled={tally.rooms.length === 0}
        onClick={() => select({ what: "draft" })}
      >
        Draft the plan
      </button>
    </section>
  );
}
