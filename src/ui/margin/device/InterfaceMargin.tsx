"use client";

import { editLeg, setLeg, setLegAddress } from "@/core/commands";
import { formatAddress } from "@/core/address";
import { nameOf } from "@/core/plan";
import { LEG_FIELDS, legFieldText, type LegField } from "@/core/planners";
import { DEVICE_KIND_WORDS } from "@/core/sheets";
import { useGoTo } from "../../frame/go-to";
import { Choose } from "../../kit/Choose";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { SegmentChip } from "../../tape/Chip";
import { FindingsSection } from "../findings/FindingsSection";
import { HistorySection } from "../HistorySection";
import { Fact, MarginHead, Section } from "../parts";

const LABELS: Readonly<Record<LegField, readonly [label: string, hint: string]>> = {
  more4: ["Further", "more addresses, with commas between"],
  addresses6: ["IPv6", "2001:db8:24:20::1"],
  mac: ["MAC", "02:5a:10:3c:00:22"],
  relayTo: ["Relay to", "a DHCP server elsewhere"],
};

/** An address of the gear itself: the gateway's leg in a segment, a switch's management address. */
export function InterfaceMargin({ id }: { id: string }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const goTo = useGoTo();
  const leg = index.plan.interface.get(id);
  const device = leg === undefined ? undefined : index.plan.device.get(leg.device);
  if (leg === undefined || device === undefined) return null;
  const segment = leg.segment === null ? undefined : index.plan.segment.get(leg.segment);
  return (
    <>
      <MarginHead kick="Selected address">
        {segment === undefined ? null : <SegmentChip segment={segment} />}
        {device.name}
      </MarginHead>
      <dl className="facts">
        <Fact name="What">
          {segment?.gatewayInterface === id
            ? `gateway of ${segment.name}`
            : `${DEVICE_KIND_WORDS[device.kind]}, ${leg.name}`}
        </Fact>
        <Fact name="Address">
          <span className="mono">{leg.addresses4.map(formatAddress).join(", ") || "none"}</span>
        </Fact>
        {leg.port === null ? null : <Fact name="Port">{nameOf(index, "port", leg.port)}</Fact>}
      </dl>
      <FindingsSection ids={new Set([id])} />
      <Section title="Change">
        <TextField
          label="Address"
          mono
          value={leg.addresses4[0] === undefined ? "" : formatAddress(leg.addresses4[0])}
          write={(text) => edit(setLegAddress({ leg: id, text }))}
        />
        {LEG_FIELDS.map((field) => (
          <TextField
            key={field}
            label={LABELS[field][0]}
            placeholder={LABELS[field][1]}
            mono
            value={legFieldText(leg, field)}
            write={(text) => edit(editLeg({ leg: id, field, text }))}
          />
        ))}
        <Choose
          label="Translates"
          value={leg.translates}
          choices={[
            ["asUsual", leg.line === null ? "as usual: no" : "as usual: yes"],
            ["yes", "yes: what leaves gets its address"],
            ["no", "no"],
          ]}
          onChoose={(translates) => edit(setLeg({ leg: id, fields: { translates } }))}
        />
      </Section>
      <div className="section px-4 pt-3">
        <button
          type="button"
          className="button"
          onClick={() => goTo.entity({ kind: "device", id: device.id })}
        >
          Show {device.name}
        </button>
      </div>
      <HistorySection about={id} />
    </>
  );
}
