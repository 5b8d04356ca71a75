"use client";

import { clsx } from "clsx";
import {
  addHost,
  clearHosts,
  convertSchool,
  editHost,
  pasteHosts,
  removeHosts,
  setLegAddress,
} from "@/core/commands";
import { useMemo, useRef, useState, type ReactNode } from "react";
import { toast } from "sonner";
import { formatAddress } from "@/core/address";
import type { Finding, Severity } from "@/core/checks";
import { counted } from "@/core/repairs";
import type { PlanIndex, Segment } from "@/core/plan";
import { HOST_COLUMNS, HOST_KIND_WORDS, MANNER_WORDS, nextFreeFor, type HostColumn } from "@/core/planners";
import { hostCellText, legCellText, quietPart, registerRows, shortIn, type RegisterRow } from "@/core/sheets";
import { useUi } from "../../frame/use-ui";
import type { Column, GridActions } from "../../grid/column";
import { EditGrid } from "../../grid/EditGrid";
import { Filter } from "../../kit/Filter";
import { QuietAddress } from "../../kit/QuietAddress";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { SegmentChip } from "../../tape/Chip";
import { Judged } from "@/ui/grid/Judged";

const HEADS: readonly (readonly [HostColumn, string])[] = [
  ["address", "Address"],
  ["name", "Device"],
  ["kind", "Kind"],
  ["segment", "Segment"],
  ["how", "How"],
  ["mac", "MAC"],
  ["port", "Plugged into"],
  ["place", "Place"],
];
const WORDS: Readonly<Record<HostColumn, string>> = {
  address: "address",
  name: "name",
  kind: "kind",
  segment: "segment",
  how: "how",
  mac: "MAC",
  port: "plugged into",
  place: "place",
};
/** Which cell a finding is about: there its sign stands. */
const CELL_OF: Readonly<Record<string, HostColumn>> = {
  "address-twice": "address",
  "host-outside-subnet": "address",
  "mac-twice": "mac",
  "static-in-pool": "how",
};

const textOf = (index: PlanIndex, { row, entity }: RegisterRow, column: HostColumn): string =>
  row === "host" ? hostCellText(index, entity, column) : legCellText(index, entity, column);

function cellOf(row: RegisterRow, id: HostColumn, text: string, quiet: string): ReactNode {
  if (id === "name") return text;
  if (id !== "address")
    return <span className={row.row === "interface" ? "text-ink2" : ""}>{text === "" ? "–" : text}</span>;
  return text === "" ? (
    <span className="text-ink2">by DHCP</span>
  ) : (
    <QuietAddress text={text} quiet={quiet} />
  );
}

function columnsOf(
  index: PlanIndex,
  list: readonly Finding[],
  quiet: string,
  shown: readonly HostColumn[],
): Column<RegisterRow, HostColumn>[] {
  const severities = new Map<string, Severity>();
  for (const finding of [...list].reverse()) {
    const column = CELL_OF[finding.code];
    if (column !== undefined)
      for (const subject of finding.subjects) severities.set(`${subject.id} ${column}`, finding.severity);
  }
  const offers: Partial<Record<HostColumn, readonly string[]>> = {
    kind: Object.values(HOST_KIND_WORDS),
    how: Object.values(MANNER_WORDS),
    segment: [...index.plan.segment.values()].map((s) => s.name),
  };
  return HEADS.filter(([id]) => shown.includes(id)).map(([id, head]) => ({
    id,
    head,
    title: WORDS[id],
    mono: id === "address" || id === "mac",
    text: (row: RegisterRow) => textOf(index, row, id),
    readOnly: (row: RegisterRow) => row.row === "interface" && id !== "address",
    offers: () => offers[id] ?? [],
    show: (row: RegisterRow) => {
      const text = textOf(index, row, id);
      const severity = severities.get(`${row.entity.id} ${id}`);
      return <Judged severity={severity}>{cellOf(row, id, text, quiet)}</Judged>;
    },
  }));
}

interface Props {
  readonly segment: Segment | null;
  readonly open: (tool: "import" | "compare") => void;
}

/** What the table asks for, as commands about hosts and the gear's own legs. */
function useActions(segment: Segment | null, shown: readonly HostColumn[]) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const add = (cells: Partial<Record<HostColumn, string>>) => {
    const name = cells.name ?? `Device ${index.plan.host.size + 1}`;
    return edit(addHost({ name, segment: segment?.id ?? null, cells }));
  };
  const actions: GridActions<HostColumn> = {
    edit: (id, column, text) => {
      if (id === null) return add({ [column]: text });
      return index.plan.host.has(id)
        ? edit(editHost({ host: id, column, text }))
        : edit(setLegAddress({ leg: id, text }));
    },
    paste: (texts, from, onto) => {
      const gear = onto.find((id) => !index.plan.host.has(id));
      if (gear !== undefined)
        return "The gear's own addresses are among these rows and can't be pasted over; begin below them.";
      return edit(pasteHosts({ rows: texts, from, onto, columns: shown, segment: segment?.id ?? null }));
    },
    clear: (cells) => edit(clearHosts({ cells })),
    remove: (ids) => {
      const hosts = ids.filter((id) => index.plan.host.has(id));
      say(
        hosts.length === 0
          ? "The gear's own addresses go with their device or segment."
          : edit(removeHosts({ hosts })),
      );
    },
    select: (id) => {
      if (id !== null) select(index.plan.host.has(id) ? { what: "host", id } : { what: "interface", id });
    },
  };
  return { add, actions };
}

function say(refusal: string | null): void {
  if (refusal !== null) toast.error(refusal, { duration: 8000 });
}

/** The register: everything with an address or waiting for one, of a segment or of the whole site. */
export function Register({ segment, open }: Props) {
  const index = useIndex();
  const list = usePlan((state) => state.list);
  const selection = useUi((state) => state.selection);
  const scroller = useRef<HTMLDivElement>(null);
  const [filter, setFilter] = useState("");
  const [block, setBlock] = useState<readonly string[]>([]);
  const rows = useMemo(() => registerRows(index, segment?.id ?? null), [index, segment]);
  // Within one segment its name in every row would say nothing.
  const shown = HOST_COLUMNS.filter((column) => segment === null || column !== "segment");
  const { add, actions } = useActions(segment, shown);
  const selected =
    selection !== null && (selection.what === "host" || selection.what === "interface") ? selection.id : null;
  return (
    <section aria-label="Register" className="flex min-h-0 flex-1 flex-col">
      <div className="flex h-10 flex-none items-center gap-2 px-4 max-[1000px]:h-auto max-[1000px]:flex-wrap">
        <h2 className="text-15">Register</h2>
        <WhoseRows segment={segment} />
        <span className="flex-1" />
        <Filter label="Filter the register" value={filter} onChange={setFilter} />
        <button type="button" className="button" onClick={() => open("import")}>
          Import
        </button>
        <button type="button" className="button" onClick={() => open("compare")}>
          Compare
        </button>
        <button type="button" className="button" onClick={() => say(add({}))}>
          Add device
        </button>
      </div>
      <div
        className={clsx(
          "flex h-8 flex-none items-center gap-2 px-4 text-13 text-ink2 max-[1000px]:h-auto",
          "max-[1000px]:flex-wrap",
        )}
      >
        <span>{counted(rows.length, "row", "rows")}</span>
        <NextFree segment={segment} add={add} />
        <span className="flex-1" />
        <Schools chosen={block.filter((id) => index.plan.host.has(id))} />
      </div>
      <div ref={scroller} tabIndex={-1} className="min-h-0 flex-1 overflow-auto">
        <EditGrid<RegisterRow, HostColumn>
          label="Register"
          rows={rows}
          filter={filter}
          onBlock={setBlock}
          idOf={({ entity }) => entity.id}
          columns={columnsOf(index, list, quietPart(index.plan), shown)}
          actions={actions}
          scroller={scroller}
          selected={selected}
          newRow={{ name: "New device", mac: <span className="font-sans">or paste rows</span> }}
        />
      </div>
    </section>
  );
}

function WhoseRows({ segment }: { segment: Segment | null }) {
  const select = useUi((state) => state.select);
  if (segment === null) return <span className="truncate text-13 text-ink2">the whole site</span>;
  return (
    <>
      <SegmentChip segment={segment} />
      <span className="truncate text-13">{segment.name}</span>
      <button type="button" className="button" onClick={() => select(null)}>
        Show all
      </button>
    </>
  );
}

/** The next free addresses of a segment; the static one is taken by a press. */
function NextFree({
  segment,
  add,
}: {
  segment: Segment | null;
  add: (cells: Partial<Record<HostColumn, string>>) => string | null;
}) {
  const index = useIndex();
  if (segment === null) return <span>choose a subnet above to see what is free next</span>;
  const typed = nextFreeFor(index, segment, "typed");
  const reserved = nextFreeFor(index, segment, "reserved");
  return (
    <>
      <span>Next free</span>
      {typed === null ? null : (
        <button
          type="button"
          className="button !min-h-6"
          title="Add a device with this static address"
          onClick={() => say(add({ address: formatAddress(typed), how: MANNER_WORDS.typed }))}
        >
          static <b className="mono">{shortIn(segment, typed)}</b>
        </button>
      )}
      {reserved === null ? null : (
        <span>
          reserved <b className="mono text-ink">{shortIn(segment, reserved)}</b>
        </span>
      )}
    </>
  );
}

/** Several devices at once from static to reserved, or back. */
function Schools({ chosen }: { chosen: readonly string[] }) {
  const edit = usePlan((state) => state.edit);
  if (chosen.length < 2) return null;
  return (
    <>
      <span className="text-ink">{counted(chosen.length, "device", "devices")} chosen</span>
      <button
        type="button"
        className="button !min-h-6"
        onClick={() => say(edit(convertSchool({ hosts: chosen, to: "reserved" })))}
      >
        Reserve
      </button>
      <button
        type="button"
        className="button !min-h-6"
        onClick={() => say(edit(convertSchool({ hosts: chosen, to: "typed" })))}
      >
        Make static
      </button>
    </>
  );
}
