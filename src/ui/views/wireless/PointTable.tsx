"use client";

import { clsx } from "clsx";
import { clearRadios, editRadio, pasteRadios } from "@/core/commands";
import type { RefObject } from "react";
import type { Finding, Severity } from "@/core/checks";
import { nameOf, type PlanIndex, type Radio } from "@/core/plan";
import { RADIO_COLUMNS, radioCellText, widthsFor, type RadioColumn } from "@/core/planners";
import { placesOf, tapeOf, type PointRow } from "@/core/sheets";
import { useUi } from "../../frame/use-ui";
import type { Column, GridActions } from "../../grid/column";
import { EditGrid } from "../../grid/EditGrid";
import { writtenCells } from "../../grid/written-cells";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { Chip } from "../../tape/Chip";
import { Judged } from "@/ui/grid/Judged";

type ColumnId = RadioColumn | "point" | "names" | "hears" | "port";
const isWritten = (column: ColumnId): column is RadioColumn =>
  (RADIO_COLUMNS as readonly string[]).includes(column);

/** The band that a column's name begins with. */
const bandOf = (id: string): Radio["band"] =>
  (["2.4", "5", "6"] as const).find((band) => id.startsWith(band.slice(0, 1))) ?? "6";

function columnsOf(index: PlanIndex, list: readonly Finding[]): Column<PointRow, ColumnId>[] {
  const wrong = new Map<string, Severity>();
  for (const finding of [...list].reverse())
    for (const { kind, id } of finding.subjects) if (kind === "radio") wrong.set(id, finding.severity);
  const written = (
    id: RadioColumn,
    head: string,
    title: string,
    bar: boolean,
  ): Column<PointRow, ColumnId> => ({
    id,
    head,
    title,
    bar,
    mono: id !== "place",
    ...(id === "place" ? {} : { align: "right" as const }),
    text: ({ radios, device }) => radioCellText(radios, device.place, id),
    offers: () => {
      if (id === "place") return placesOf(index);
      if (id.endsWith("width")) return widthsFor(bandOf(id)).map(String);
      return ["auto", "off"];
    },
    show: ({ radios, device }) => {
      const text = radioCellText(radios, device.place, id);
      const radio = radios.find((radio) => radio.band === id);
      const severity = radio === undefined ? undefined : wrong.get(radio.id);
      if (severity !== undefined) return <Judged severity={severity}>{text}</Judged>;
      return text === "" || text === "off" || text === "auto" || id === "place" ? (
        <span className="text-ink2">{text || "–"}</span>
      ) : (
        text
      );
    },
  });
  const derived = (
    id: "point" | "names" | "hears" | "port",
    head: string,
    {
      text,
      show,
      bar = false,
    }: {
      readonly text: (row: PointRow) => string;
      readonly show: (row: PointRow) => React.ReactNode;
      readonly bar?: boolean;
    },
  ): Column<PointRow, ColumnId> => ({ id, head, derived: true, readOnly: () => true, text, show, bar });
  return [
    derived("point", "Name", {
      text: ({ device }) => device.name,
      show: ({ device }) => <b className="font-semibold">{device.name}</b>,
    }),
    written("place", "Place", "place", false),
    written("2.4", "Ch.", "channel in 2.4 GHz", true),
    written("2.4 width", "MHz", "width in 2.4 GHz", false),
    written("5", "Ch.", "channel in 5 GHz", true),
    written("5 width", "MHz", "width in 5 GHz", false),
    written("6", "Ch.", "channel in 6 GHz", true),
    written("6 width", "MHz", "width in 6 GHz", false),
    derived("hears", "Hears", {
      text: ({ hears }) => hears.map((point) => point.device.name).join(", "),
      show: ({ hears }) =>
        hears.length === 0 ? (
          <span className="text-ink2">nobody</span>
        ) : (
          <span
            className="inline-block max-w-28 truncate align-bottom"
            title={hears.map((point) => point.device.name).join(", ")}
          >
            {hears.map((point, i) => (
              <span
                key={point.device.id}
                className={point.clashes.length > 0 ? "font-semibold text-warn" : "text-ink2"}
              >
                {i > 0 ? ", " : ""}
                {point.device.name}
              </span>
            ))}
          </span>
        ),
      bar: true,
    }),
    derived("port", "Its port needs", {
      text: (row) => row.needs.tagged.join(" "),
      show: (row) => <PortNeeds index={index} row={row} />,
      bar: true,
    }),
  ];
}

/** The least that the port of an access point has to carry, as tape; what is missing there is dashed. */
function PortNeeds({
  index,
  row: { device, uplink, needs, missing, needless },
}: {
  index: PlanIndex;
  row: PointRow;
}) {
  if (uplink === null) return <span className="text-ink2">plugged in nowhere</span>;
  const vids = [...(needs.untagged === null ? [] : [needs.untagged]), ...needs.tagged];
  const where = nameOf(index, "port", uplink.id).replace(" port ", " ");
  return (
    <span
      className="inline-flex items-center gap-1"
      title={
        `${where}${missing.length > 0 ? `, missing ${missing.join(", ")}` : ""}` +
        (needless.length > 0 ? `, needless ${needless.join(", ")}` : "")
      }
    >
      {vids.map((vid, i) => (
        <span
          key={vid}
          className={clsx(
            "leading-none",
            i === 0 && needs.untagged !== null && !missing.includes(vid) ? "border-b-2 border-ink" : "",
          )}
          style={
            missing.includes(vid) ? { outline: "1.5px dashed var(--stop)", outlineOffset: 1 } : undefined
          }
        >
          <Chip
            tape={tapeOf(index, device.domain, vid)}
            name={tapeOf(index, device.domain, vid).name}
            height={14}
          />
        </span>
      ))}
      {missing.length === 0 ? null : <b className="font-semibold text-stop">{missing.length} missing</b>}
      {needless.length === 0 ? null : <b className="font-semibold text-warn">{needless.length} needless</b>}
      <span className="text-ink2">{where}</span>
    </span>
  );
}

/** The access points with their radios, edited in place like a spreadsheet. */
export function PointTable({
  rows,
  scroller,
}: {
  rows: readonly PointRow[];
  scroller: RefObject<HTMLDivElement | null>;
}) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const list = usePlan((state) => state.list);
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const actions: GridActions<ColumnId> = {
    edit: (id, column, text) =>
      id === null || !isWritten(column) ? null : edit(editRadio({ device: id, column, text })),
    paste: (texts, from, onto) =>
      isWritten(from)
        ? edit(pasteRadios({ rows: texts, from, onto }))
        : "Begin with a column that can be written.",
    clear: (cells) => edit(clearRadios({ cells: writtenCells(cells, isWritten) })),
    select: (id) => {
      if (id !== null) select({ what: "device", id });
    },
  };
  return (
    <section aria-label="Access points" className="pt-5">
      <EditGrid<PointRow, ColumnId>
        label="Radios"
        rows={rows}
        idOf={({ device }) => device.id}
        columns={columnsOf(index, list)}
        actions={actions}
        scroller={scroller}
        selected={selection?.what === "device" ? selection.id : null}
        groups={[
          { head: "Access point", span: 2, bar: false },
          { head: "2.4 GHz", span: 2, bar: true },
          { head: "5 GHz", span: 2, bar: true },
          { head: "6 GHz", span: 2, bar: true },
          { head: "Neighbours", span: 1, bar: true },
          { head: "Wire", span: 1, bar: true },
        ]}
      />
      <p className="px-4 pt-2 text-12 text-ink2">
        A channel is the number of its first 20 MHz; “auto” leaves it to the access point, “off” keeps the
        radio silent, an empty cell means no radio in that band. The underlined tape is untagged.
      </p>
    </section>
  );
}
