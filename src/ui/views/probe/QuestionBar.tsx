"use client";

import { useMemo, useState } from "react";
import { formatAddress, parseAddress } from "@/core/address";
import type { ProbeAs, ProbeGoal } from "@/core/plan";
import { SERVICES } from "@/core/policy";
import { catalogueOf } from "@/core/catalogue";
import { managementAddress, plugKey, plugs, settingsFor } from "@/core/probe";
import { Combo, type Choice } from "../../kit/Combo";
import { useUi } from "../../frame/use-ui";
import { useIndex } from "../../plan-store/use-plan";

const AS: readonly (readonly [ProbeAs["as"], string])[] = [
  ["client", "that asks for an address"],
  ["kind", "a device of a kind"],
  ["typed", "with a typed-in address"],
  ["behindPhone", "behind a phone"],
  ["falseServer", "that gives addresses itself"],
  ["spoofer", "that takes another’s address"],
];

const goalKey = (goal: ProbeGoal): string => {
  switch (goal.to) {
    case "host":
      return `host ${goal.host}`;
    case "device":
      return `device ${goal.device}`;
    case "forward":
      return `forward ${goal.forward}`;
    case "port":
      return `port ${goal.port}`;
    default:
      return goal.to;
  }
};

/** What is plugged in where, and what it asks for. */
export function QuestionBar() {
  const index = useIndex();
  const question = useUi((state) => state.probe);
  const set = useUi((state) => state.set);
  const select = useUi((state) => state.select);
  const { from, as, family, goal } = question;
  const places = useMemo(() => plugs(index), [index]);
  const goals = useMemo(
    (): Choice[] => [
      { value: "address", label: "an address" },
      { value: "internet", label: "the internet" },
      { value: "gateway", label: "the gateway’s own pages" },
      ...[...index.plan.host.values()].map((host) => ({
        value: `host ${host.id}`,
        label: host.name,
        detail: host.place,
        group: "a device",
      })),
      ...[...index.plan.device.values()]
        .filter((device) => managementAddress(index, device, family) !== undefined)
        .map((device) => ({
          value: `device ${device.id}`,
          label: `the pages of ${device.name}`,
          detail: device.place,
          group: "gear",
        })),
      ...[...index.plan.forward.values()].map((forward) => ({
        value: `forward ${forward.id}`,
        label: `the forward ${forward.name}`,
        group: "from outside in",
      })),
      ...places.flatMap((place) =>
        place.from.at === "port"
          ? [
              {
                value: `port ${place.from.port}`,
                label: `another laptop at ${place.label}`,
                group: "another laptop",
              },
            ]
          : [],
      ),
    ],
    [index, family, places],
  );
  const ask = (part: Partial<typeof question>) => {
    select(null);
    set({ probe: { ...question, ...part } });
  };
  const kinds = catalogueOf(index.plan).filter((kind) => kind.role === "host");
  const service = "service" in goal ? goal.service : null;
  const chooseGoal = (value: string) => {
    const [kind, id = ""] = value.split(" ");
    const to: ProbeGoal =
      kind === "host"
        ? { to: "host", host: id, service }
        : kind === "device"
          ? { to: "device", device: id, service }
          : kind === "forward"
            ? { to: "forward", forward: id }
            : kind === "port"
              ? { to: "port", port: id, service }
              : kind === "internet"
                ? { to: "internet", service }
                : kind === "gateway"
                  ? { to: "gateway", service }
                  : { to: "address" };
    ask({ goal: to });
  };
  const chooseAs = (value: string) => {
    const first = settingsFor(index, from);
    switch (value) {
      case "typed":
        return ask({
          as: { as: "typed", address: first.address, length: first.length, gateway: first.gateway },
        });
      case "spoofer":
        return ask({ as: { as: "spoofer", address: first.gateway } });
      case "kind":
        return ask({ as: { as: "kind", word: kinds[0]?.word ?? "" } });
      case "falseServer":
        return ask({ as: { as: "falseServer" } });
      case "behindPhone":
        return ask({ as: { as: "behindPhone" } });
      default:
        return ask({ as: { as: "client" } });
    }
  };
  const attacks = as.as === "falseServer" || as.as === "spoofer";
  const outside = from?.at === "internet";
  return (
    <div className="flex flex-wrap items-center gap-2 border-b border-hair px-4 py-2">
      <span className="text-15">{outside ? "Ask from" : "Plug in"}</span>
      <Combo
        label="What and where"
        value={from === null ? "" : plugKey(from)}
        empty="a laptop or a device, where?"
        choices={places.map((plug) => ({
          value: plug.key,
          label: plug.label,
          detail: plug.detail,
          group: plug.group,
        }))}
        onChoose={(key) => {
          const place = places.find((plug) => plug.key === key)?.from ?? null;
          ask({ from: place, as: place?.at === "port" ? as : { as: "client" } });
        }}
      />
      {from?.at !== "port" ? null : (
        <select
          aria-label="As what"
          className="field"
          value={as.as}
          onChange={(event) => chooseAs(event.target.value)}
        >
          {AS.map(([key, words]) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </select>
      )}
      {as.as === "typed" ? (
        <>
          <AddressField
            label="Its address"
            value={`${formatAddress(as.address)}/${as.length}`}
            write={(text) => {
              const [left = "", right = ""] = text.split("/");
              const address = parseAddress(left);
              const length = Number(right);
              if (
                address === null ||
                right === "" ||
                !Number.isInteger(length) ||
                length < 0 ||
                length > (typeof address === "number" ? 32 : 128)
              )
                return `"${text}" is no address with its length, such as 192.0.2.10/24.`;
              ask({ as: { ...as, address, length }, family: typeof address === "number" ? 4 : 6 });
              return null;
            }}
          />
          <AddressField
            label="Its gateway"
            value={as.gateway === null ? "" : formatAddress(as.gateway)}
            write={(text) => {
              const address = text === "" ? null : parseAddress(text);
              if (text !== "" && address === null)
                return `"${text}" is no address, such as 192.0.2.1; leave it empty for none.`;
              ask({ as: { ...as, gateway: address } });
              return null;
            }}
          />
        </>
      ) : null}
      {as.as === "kind" ? (
        <select
          aria-label="Of which kind"
          className="field"
          value={as.word}
          onChange={(event) => ask({ as: { as: "kind", word: event.target.value } })}
        >
          {kinds.map((kind) => (
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
            ask({ as: { as: "spoofer", address } });
            return null;
          }}
        />
      ) : null}
      {attacks ? null : (
        <>
          <span className="text-15">and ask for</span>
          <Combo
            label="What it asks for"
            value={goalKey(goal)}
            empty="an address"
            choices={goals}
            onChoose={chooseGoal}
          />
          {!("service" in goal) ? null : (
            <label className="flex items-center gap-2 text-15">
              by
              <select
                className="field"
                value={service?.name ?? ""}
                onChange={(event) => {
                  const chosen = SERVICES.find((one) => one.name === event.target.value) ?? null;
                  ask({ goal: { ...goal, service: chosen } });
                }}
              >
                <option value="">anything</option>
                {SERVICES.map((one) => (
                  <option key={one.name} value={one.name}>
                    {one.name}
                  </option>
                ))}
              </select>
            </label>
          )}
          {as.as === "typed" ? null : (
            <select
              aria-label="Address family"
              className="field"
              value={family}
              onChange={(event) => ask({ family: event.target.value === "6" ? 6 : 4 })}
            >
              <option value={4}>IPv4</option>
              <option value={6}>IPv6</option>
            </select>
          )}
        </>
      )}
    </div>
  );
}

function AddressField({
  label,
  value,
  write,
}: {
  label: string;
  value: string;
  write: (text: string) => string | null;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const done = () => {
    if (typed === null) return;
    const refused = typed === value ? null : write(typed.trim());
    setFault(refused);
    if (refused === null) setTyped(null);
  };
  return (
    <span className="flex items-center gap-1">
      <input
        aria-label={label}
        title={label}
        aria-invalid={fault !== null}
        className="field mono w-44"
        value={typed ?? value}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={done}
        onKeyDown={(event) => {
          if (event.key === "Enter") done();
          if (event.key === "Escape") {
            setTyped(null);
            setFault(null);
          }
        }}
      />
      {fault === null ? null : (
        <span role="alert" className="max-w-64 text-12 text-stop">
          {fault}
        </span>
      )}
    </span>
  );
}
