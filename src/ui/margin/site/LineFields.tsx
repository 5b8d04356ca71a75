"use client";

import { editFollow, editLineField, editOutside, setLine, writeLine } from "@/core/commands";
import { formatPrefix } from "@/core/address";
import type { Line } from "@/core/plan";
import {
  editLine,
  LINE_COLUMNS,
  lineCellText,
  outsideFieldText,
  type LineColumn,
  type LineField,
  type OutsideField,
} from "@/core/planners";
import { Choose } from "../../kit/Choose";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";

const TEXTS: readonly (readonly [LineField, string, string])[] = [
  ["downMbps", "Down Mbit/s", "500"],
  ["upMbps", "Up Mbit/s", "100"],
  ["vlanTag", "Tag wanted", "none"],
  ["boxPrefix", "Inside box", "192.168.177.0/24"],
  ["locked", "Locked to it", "such as a phone service"],
];

const OUTSIDE: readonly (readonly [OutsideField, string, string])[] = [
  ["length4", "Outside mask", "/29 or 255.255.255.248"],
  ["nextHop4", "Next hop", "the provider’s router"],
  ["length6", "IPv6 length", "/64"],
  ["nextHop6", "IPv6 next hop", "fe80::1"],
  ["dns", "DNS servers", "the provider’s"],
];

const HINTS: Partial<Record<LineColumn, string>> = {
  watch: "link, or addresses outside that answer",
  back: "60 s, or by hand",
  pins: "segments, devices or services",
  delegated: "/56, or 2001:db8:24::/56, always",
};

const textOf = (line: Line, field: LineField): string => {
  switch (field) {
    case "vlanTag":
      return line.vlanTag === null ? "" : String(line.vlanTag);
    case "boxPrefix":
      return line.boxPrefix === null ? "" : formatPrefix(line.boxPrefix);
    case "locked":
      return line.locked;
    default:
      return line[field] === 0 ? "" : String(line[field]);
  }
};

/** Everything that is known of an internet line and the provider's box on it. */
export function LineFields({ line }: { line: Line }) {
  const edit = usePlan((state) => state.edit);
  const write = (fields: Parameters<typeof editLine>[2]) => edit(setLine({ line: line.id, fields }));
  return (
    <>
      <TextField label="Name" value={line.name} write={(name) => write({ name: name.trim() })} />
      <Choose
        label="Line"
        value={line.access}
        choices={[
          ["fibre", "fibre"],
          ["cable", "cable"],
          ["dsl", "DSL"],
          ["mobile", "mobile"],
          ["radio", "radio"],
          ["other", "other"],
        ]}
        onChoose={(access) => write({ access })}
      />
      <OrderFields line={line} />
      <Choose
        label="Address by"
        value={line.addressing}
        choices={[
          ["dhcp", "DHCP"],
          ["login", "login"],
          ["fixed", "fixed"],
        ]}
        onChoose={(addressing) => write({ addressing })}
      />
      <Choose
        label="Carrier NAT"
        value={line.carrierNat}
        choices={[
          ["unknown", "not known"],
          ["yes", "yes"],
          ["no", "no"],
        ]}
        onChoose={(carrierNat) => write({ carrierNat })}
      />
      <Choose
        label="Provider’s box"
        value={line.providerBox}
        choices={[
          ["none", "none"],
          ["routes", "routes"],
          ["bridges", "bridges"],
          ["cannotBridge", "cannot bridge"],
        ]}
        onChoose={(providerBox) => write({ providerBox })}
      />
      {TEXTS.filter(([field]) => line.providerBox !== "none" || !["boxPrefix", "locked"].includes(field)).map(
        ([field, label, hint]) => (
          <TextField
            key={field}
            label={label}
            value={textOf(line, field)}
            placeholder={hint}
            mono={field !== "locked"}
            write={(text) => edit(editLineField({ line: line.id, field, text }))}
          />
        ),
      )}
      {OUTSIDE.map(([field, label, hint]) => (
        <TextField
          key={field}
          label={label}
          value={outsideFieldText(line, field)}
          placeholder={line.addressing === "fixed" ? hint : "told by the line"}
          mono
          write={(text) => edit(editOutside({ line: line.id, field, text }))}
        />
      ))}
      <FollowFields line={line} />
    </>
  );
}

/** In which order it carries, how its loss is noticed, and what is pinned to it. */
function OrderFields({ line }: { line: Line }) {
  const edit = usePlan((state) => state.edit);
  const index = useIndex();
  return (
    <>
      {LINE_COLUMNS.filter(([column]) => column !== "name" && column !== "follows").map(([column, label]) => (
        <TextField
          key={column}
          label={label}
          value={lineCellText(index, line, column)}
          placeholder={HINTS[column] ?? ""}
          mono={column !== "pins"}
          write={(text) => edit(writeLine({ line: line.id, column, text }))}
        />
      ))}
    </>
  );
}

/** The name that follows the line's address, who updates it, and where its account is kept. */
function FollowFields({ line }: { line: Line }) {
  const edit = usePlan((state) => state.edit);
  const write = (fields: Partial<Line["dynamicName"]>) =>
    edit(setLine({ line: line.id, fields: { dynamicName: { ...line.dynamicName, ...fields } } }));
  return (
    <>
      <TextField
        label="Its name"
        mono
        value={line.dynamicName.name}
        placeholder="lock.example, follows the address"
        write={(text) => edit(editFollow({ line: line.id, field: "name", text }))}
      />
      {line.dynamicName.name === "" ? null : (
        <>
          <Choose
            label="Updated by"
            value={line.dynamicName.updatedBy}
            choices={[
              ["gateway", "the gateway"],
              ["providerBox", "the provider’s box"],
              ["host", "a device inside"],
            ]}
            onChoose={(updatedBy) => write({ updatedBy })}
          />
          <TextField
            label="Account"
            value={line.dynamicName.account}
            placeholder="where it is kept, never the account"
            write={(text) => edit(editFollow({ line: line.id, field: "account", text }))}
          />
        </>
      )}
    </>
  );
}
