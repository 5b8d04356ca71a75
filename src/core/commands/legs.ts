import { nameOf, type Interface } from "../plan";
import { chooseGateway as chooseGatewayOf, writeLegField, type LegField } from "../planners";
import { command } from "./command";
import { chose } from "./says";

const LEG_WORDS: Readonly<Record<LegField, string>> = {
  more4: "further addresses",
  addresses6: "IPv6 addresses",
  mac: "MAC address",
  relayTo: "DHCP relay to",
};

export const editLeg = command<{ readonly leg: string; readonly field: LegField; readonly text: string }>(
  "edit-leg",
  {
    says: ({ leg, field, text }, index) =>
      `${nameOf(index, "interface", leg)}: ${LEG_WORDS[field]} ${text === "" ? "emptied" : text}`,
    run: (context, { leg, field, text }) => writeLegField(context, leg, field, text),
  },
);

export const setLeg = command<{
  readonly leg: string;
  readonly fields: Partial<Pick<Interface, "translates">>;
}>("set-leg", {
  says: ({ leg, fields }, index) => chose(index, nameOf(index, "interface", leg), fields),
  run: ({ edits }, { leg, fields }) => edits.patch("interface", leg, fields),
});

export const chooseGateway = command<{ readonly segment: string; readonly device: string | null }>(
  "choose-gateway",
  {
    says: ({ segment, device }, index) =>
      device === null
        ? `${nameOf(index, "segment", segment)} has no gateway`
        : `${nameOf(index, "device", device)} is the gateway of ${nameOf(index, "segment", segment)}`,
    run: (context, { segment, device }) => chooseGatewayOf(context, segment, device),
  },
);
