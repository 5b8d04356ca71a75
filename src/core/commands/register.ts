import { nameOf, type Host, type PlanIndex } from "../plan";
import {
  addHost as addHostTo,
  convertSchool as convertSchoolOf,
  editHostCell,
  MANNER_WORDS,
  pasteHosts as pasteHostsInto,
  removeHost,
  setHostFields,
  setLegAddress,
  setOwnNetwork,
  type HostColumn,
  type OwnField,
  type Paste,
} from "../planners";
import { takeSeen, writeHostTable, type ReadTable, type Reconciled } from "../register";
import { command, eachCell, inTurn, type Cell } from "./command";
import { count, emptied, pasted, wrote } from "./says";

const hostName = (index: PlanIndex, id: string): string => nameOf(index, "host", id);

interface OfHost {
  readonly host: string;
}

export const editHost = command<OfHost & { readonly column: HostColumn; readonly text: string }>(
  "edit-host",
  {
    says: ({ host, column, text }, index) => wrote(hostName(index, host), column, text),
    run: (context, { host, column, text }) => editHostCell(context, host, column, text),
  },
);

type MoreField = Parameters<typeof setHostFields>[2];

export const editHostField = command<OfHost & { readonly field: MoreField; readonly text: string }>(
  "edit-host-field",
  {
    says: ({ host, field, text }, index) =>
      wrote(hostName(index, host), field, field === "notes" && text !== "" ? "written" : text),
    run: (context, { host, field, text }) => setHostFields(context, host, field, text),
  },
);

export const setChangesMac = command<OfHost & { readonly on: boolean }>("set-changes-mac", {
  says: ({ host, on }, index) => `${hostName(index, host)} ${on ? "changes" : "keeps"} its MAC address`,
  run: ({ edits }, { host, on }) => edits.patch("host", host, { changesMac: on }),
});

export const editOwnNetwork = command<OfHost & { readonly field: OwnField; readonly text: string }>(
  "edit-own-network",
  {
    says: ({ host, field, text }, index) => wrote(hostName(index, host), field, text),
    run: (context, { host, field, text }) => setOwnNetwork(context, host, field, text),
  },
);

export const giveAddress = command<OfHost & { readonly address: string; readonly manner: Host["manner"] }>(
  "give-address",
  {
    says: ({ host, address, manner }, index) =>
      `${hostName(index, host)}: ${address}, ${MANNER_WORDS[manner]}`,
    run: (context, { host, address, manner }) =>
      inTurn(
        () => editHostCell(context, host, "address", address),
        () => editHostCell(context, host, "how", MANNER_WORDS[manner]),
      ),
  },
);

/** Columns in the order in which each can be read from those before it. */
const ORDER = ["segment", "mac", "address", "how", "kind", "port", "place"] as const;

export const addHost = command<{
  readonly name: string;
  readonly segment: string | null;
  readonly cells: Partial<Readonly<Record<HostColumn, string>>>;
}>("add-host", {
  says: ({ name }) => `Added ${name} to the register`,
  run: (context, { name, segment, cells }) => {
    const refusal = addHostTo(context, { name, segment });
    const made = context.edits.all("host").find((host) => !context.index.plan.host.has(host.id));
    if (refusal !== null || made === undefined) return refusal;
    return inTurn(
      ...ORDER.map((column) => () => {
        const text = cells[column];
        return text === undefined ? null : editHostCell(context, made.id, column, text);
      }),
    );
  },
});

export const removeHosts = command<{ readonly hosts: readonly string[] }>("remove-hosts", {
  says: ({ hosts }, index) => {
    const [only, ...more] = hosts;
    return only !== undefined && more.length === 0
      ? `Removed ${hostName(index, only)}`
      : `Removed ${count(hosts, "device")} from the register`;
  },
  run: ({ edits }, { hosts }) => {
    for (const id of hosts) removeHost(edits, id);
  },
});

export const pasteHosts = command<Paste<HostColumn> & { readonly segment: string | null }>("paste-hosts", {
  says: ({ rows }) => pasted(rows, "the register"),
  run: (context, { segment, ...paste }) => pasteHostsInto(context, paste, segment),
  log: ({ rows, from }) => ({ rows: rows.length, from }),
});

/** Rows are hosts, and legs of gear, of which only the address is emptied. */
export const clearHosts = command<{ readonly cells: readonly Cell<HostColumn>[] }>("clear-hosts", {
  says: ({ cells }) => emptied(cells, "the register"),
  run: (context, { cells }) =>
    eachCell(cells, (row, column) =>
      context.index.plan.host.has(row)
        ? editHostCell(context, row, column, "")
        : setLegAddress(context, row, ""),
    ),
});

export const convertSchool = command<{
  readonly hosts: readonly string[];
  readonly to: "typed" | "reserved";
}>("convert-school", {
  says: ({ hosts, to }) => `${count(hosts, "device")} ${to === "typed" ? "static" : "reserved in DHCP"}`,
  run: ({ edits, index }, { hosts, to }) => convertSchoolOf(edits, index, hosts, to),
});

export const importHosts = command<{ readonly table: ReadTable }>("import-hosts", {
  says: ({ table }) => `Imported ${count(table.good, "row")} into the register`,
  run: ({ edits, ids }, { table }) => writeHostTable(edits, ids, table),
  log: ({ table }) => ({ rows: table.good.length, skipped: table.bad.length }),
});

export const takeOverSeen = command<{ readonly rows: readonly Reconciled[] }>("reconcile", {
  says: ({ rows }) => `Took over what was seen of ${count(rows, "device")}`,
  run: ({ edits, index, ids }, { rows }) => takeSeen(edits, index, ids, rows),
  log: ({ rows }) => ({ rows: rows.length }),
});
