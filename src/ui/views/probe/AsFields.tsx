"use client";

import { formatAddress, parseAddress, type Family } from "@/core/address";
import { catalogueOf } from "@/core/catalogue";
import type { PlanIndex, ProbeAs } from "@/core/plan";
import { settingsFor, type Plug } from "@/core/probe";
import { AddressField } from "./AddressField";

const AS: readonly (readonly [ProbeAs["as"], string])[] = [
  ["client", "that asks for an address"],
  ["kind", "a device of a kind"],
  ["typed", "with a static address"],
  ["behindPhone", "behind a phone"],
  ["falseServer", "that runs a DHCP server"],
  ["falseRouter", "that advertises itself as a router"],
  ["spoofer", "that takes another’s address"],
];

export type AskAs = (as: ProbeAs, family?: Family) => void;

const kindsOf = (index: PlanIndex) => catalogueOf(index.plan).filter((kind) => kind.role === "host");

/** What it is to begin with, with addresses of the segment at that place. */
function firstOf(index: PlanIndex, value: string, from: Plug["from"]): ProbeAs {
  const { address, length, gateway } = settingsFor(index, from);
  switch (value) {
    case "typed":
      return { as: "typed", address, length, gateway };
    case "spoofer":
      return { as: "spoofer", address: gateway };
    case "kind":
      return { as: "kind", word: kindsOf(index)[0]?.word ?? "" };
    case "falseServer":
      return { as: "falseServer" };
    case "falseRouter":
      return { as: "falseRouter" };
    case "behindPhone":
      return { as: "behindPhone" };
    default:
      return { as: "client" };
  }
}

/** As what something is plugged into a port, and what it is given by hand. */
export function AsFields({
  index,
  from,
  as,
  ask,
}: {
  index: PlanIndex;
  from: Plug["from"];
  as: ProbeAs;
  ask: AskAs;
}) {
  return (
    <>
      <select
        aria-label="As what"
        className="field"
        value={as.as}
        onChange={(event) => ask(firstOf(index, event.target.value, from))}
      >
        {AS.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
      {as.as === "typed" ? <StaticFields as={as} ask={ask} /> : null}
      {as.as === "kind" ? (
        <select
          aria-label="Of which kind"
          className="field"
          value={as.word}
          onChange={(event) => ask({ as: "kind", word: event.target.value })}
        >
          {kindsOf(index).map((kind) => (
            <option key={kind.word} value={kind.word}>
              {kind.word}
            </option>
          ))}
        </select>
      ) : null}
      {as.as === "spoofer" ? (
        <AddressField
          label="The address it takes"
          value={formatAddress(as.address)}
          write={(text) => {
            const address = parseAddress(text);
            if (address === null) return `"${text}" is no address, such as 192.0.2.1.`;
            ask({ as: "spoofer", address });
            return null;
          }}
        />
      ) : null}
    </>
  );
}

function StaticFields({ as, ask }: { as: Extract<ProbeAs, { as: "typed" }>; ask: AskAs }) {
  const writeAddress = (text: string): string | null => {
    const [left = "", right = ""] = text.split("/");
    const address = parseAddress(left);
    const length = Number(right);
    const most = typeof address === "number" ? 32 : 128;
    if (address === null || right === "" || !Number.isInteger(length) || length < 0 || length > most)
      return `"${text}" is no address with its length, such as 192.0.2.10/24.`;
    ask({ ...as, address, length }, most === 32 ? 4 : 6);
    return null;
  };
  const writeGateway = (text: string): string | null => {
    const address = text === "" ? null : parseAddress(text);
    if (text !== "" && address === null)
      return `"${text}" is no address, such as 192.0.2.1; leave it empty for none.`;
    ask({ ...as, gateway: address });
    return null;
  };
  return (
    <>
      <AddressField
        label="Its address"
        value={`${formatAddress(as.address)}/${as.length}`}
        write={writeAddress}
      />
      <AddressField
        label="Its gateway"
        value={as.gateway === null ? "" : formatAddress(as.gateway)}
        write={writeGateway}
      />
    </>
  );
}
