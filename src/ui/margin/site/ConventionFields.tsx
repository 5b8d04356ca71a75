"use client";

import { editSite, setConventions } from "@/core/commands";
import type { Site } from "@/core/plan";
import { siteFieldText, type SiteField } from "@/core/planners";
import { SCHOOL_WORDS } from "@/core/survey";
import { Choose } from "../../kit/Choose";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";

type Conventions = Site["conventions"];

const NUMBERS: readonly (readonly [SiteField, string, string])[] = [
  ["vidStart", "First VLAN ID", "10"],
  ["vidStep", "Step", "10"],
  ["staticSize", "Static block", "18"],
];
const NAMES: readonly (readonly [SiteField, string, string])[] = [
  ["namePattern", "Names", "{place}-{kind}-{n}"],
  ["devicePattern", "Gear", "{place} {kind} {n}"],
  ["cablePattern", "Cables", "{from}-{fromPort}"],
  ["domainName", "Domain", "fennel.internal"],
  ["growth", "Growth %", "25"],
  ["lease", "Lease", "8 h"],
  ["guestLease", "Visitors’ lease", "2 h"],
];

/** The site's own ways: how VLANs and subnets are numbered, where what lies, how things are named. */
export function ConventionFields() {
  const { site } = useIndex().plan;
  const edit = usePlan((state) => state.edit);
  const { conventions } = site;
  const set = (fields: Partial<Conventions>) => {
    edit(setConventions(fields));
  };
  const field = ([name, label, hint]: readonly [SiteField, string, string]) => (
    <TextField
      key={name}
      label={label}
      value={siteFieldText(site, name)}
      placeholder={hint}
      mono
      write={(text) => edit(editSite({ field: name, text }))}
    />
  );
  return (
    <>
      {NUMBERS.slice(0, 2).map(field)}
      <Choose
        label="Subnets"
        value={conventions.subnetScheme}
        choices={[
          ["octet", "VLAN ID in the third octet"],
          ["packed", "packed tightly"],
        ]}
        onChoose={(subnetScheme) => set({ subnetScheme })}
      />
      <Choose
        label="Gateway"
        value={conventions.gatewayAt}
        choices={[
          ["first", "first usable address"],
          ["last", "last usable address"],
        ]}
        onChoose={(gatewayAt) => set({ gatewayAt })}
      />
      {NUMBERS.slice(2).map(field)}
      <Choose
        label="It lies at"
        value={conventions.staticAt}
        choices={[
          ["start", "the start of the subnet"],
          ["end", "the end of the subnet"],
        ]}
        onChoose={(staticAt) => set({ staticAt })}
      />
      <Choose
        label="Fixed by"
        value={conventions.school}
        choices={[
          ["reserve", "reservation in DHCP"],
          ["type", "static on the device"],
        ]}
        onChoose={(school) => set({ school })}
      />
      <Choose
        label="DNS"
        value={conventions.dns}
        choices={[
          ["gateway", "the gateway"],
          ["listed", "these servers"],
        ]}
        onChoose={(dns) => set({ dns })}
      />
      {conventions.dns === "listed" ? field(["dnsServers", "DNS servers", "10.24.60.10"]) : null}
      {NAMES.map(field)}
      <Choose
        label="Separation"
        value={conventions.separation}
        choices={[
          ["auto", "what fits the survey"],
          ["vlans", SCHOOL_WORDS.vlans],
          ["routers", SCHOOL_WORDS.routers],
          ["gap", SCHOOL_WORDS.gap],
        ]}
        onChoose={(separation) => set({ separation })}
      />
    </>
  );
}
