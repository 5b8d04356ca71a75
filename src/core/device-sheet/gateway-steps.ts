import type { DeviceData } from "./sheet-types";
import { NONE, type SheetStep } from "./step";

/** What a gateway does with what passes: routes, translation, forwards, and the list of rules. */
export function gatewaySteps(data: DeviceData): SheetStep[] {
  return [
    {
      ...NONE,
      title: "Routes",
      heads: ["For", "By", "Metric"],
      rows: data.routes.map(({ prefix, via, metric }) => [prefix, via, `${metric}`]),
    },
    {
      ...NONE,
      title: "Address translation",
      heads: ["What leaves by", "gets the address"],
      rows: data.translations.map(({ out, address }) => [out, address || "of the line"]),
    },
    {
      ...NONE,
      title: "Forwards",
      heads: [
        "Name",
        "Line",
        "Outside",
        "Protocol",
        "Ports",
        "To",
        "Port inside",
        "From inside, too",
        "Who",
        "Until",
      ],
      rows: data.forwards.map((forward) => [
        forward.name,
        forward.line,
        forward.outside || "from the line",
        forward.protocol.toUpperCase(),
        forward.ports,
        `${forward.to} ${forward.host}`.trim(),
        forward.toPort,
        forward.hairpin ? "yes" : "no",
        forward.sources.join(", ") || "anybody",
        forward.until ?? "always",
      ]),
    },
    ruleStep(data),
  ];
}

/** The list of rules, those with hours last. */
const ruleStep = (data: DeviceData): SheetStep => ({
  ...NONE,
  title: "Firewall rules",
  heads: ["Rule", "From", "To", "Services", "Action", "When", "For"],
  rows: data.rules.map((rule) => [
    String(rule.number),
    rule.from.join("; "),
    rule.to.join("; "),
    rule.services,
    rule.action,
    rule.when || "always",
    rule.reason,
  ]),
  note:
    "Answers to what was let through pass before the first rule; what none of them takes is dropped. " +
    "Enter them from your own seat last: the rule that lets you in comes before the end of the list.",
});
