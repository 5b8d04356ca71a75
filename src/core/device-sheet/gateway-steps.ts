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
    {
      ...NONE,
      title: "Discovery",
      heads: ["Tells what there is between"],
      rows: data.tells.map((segment) => [segment]),
      note:
        data.tells.length === 0
          ? ""
          : "Multicast DNS (RFC 6762) is repeated between these only; doors decide what may then be used.",
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
  note: filterNote(data),
});

/** How the list is read, and what else of it is set: nothing for a device that filters nothing. */
function filterNote({ filter }: DeviceData): string {
  if (filter === null) return "";
  return [
    filter.remembers
      ? "Answers to what was let through pass before the first rule."
      : "It does not remember what it let through: answers pass by rules of their own.",
    `What none of the rules takes is dropped${filter.logsRefused ? " and recorded" : ""}.`,
    filter.hostsOpen
      ? "Hosts may open ports on it for themselves: switched on, as planned."
      : "Hosts opening ports on it for themselves: off.",
    "Enter the rules from your own seat last: the one that lets you in comes before the end of the list.",
  ].join(" ");
}
