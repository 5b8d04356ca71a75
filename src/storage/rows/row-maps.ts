/* eslint-disable max-lines -- one map of columns for each kind of the plan */
import type { Kind } from "@/core/plan";
import { flag, inner, json, value, type Fields, type Part, type RowMap } from "./row-map";

const text = (entity: unknown, field: string): string | null => {
  const found = (entity as Fields)[field];
  return typeof found === "string" ? found : null;
};

const wallEnd = (field: "from" | "to"): Part => ({
  columns: [`${field}_at`, `${field}_zone_id`],
  write: (entity) => [text(entity[field], "at"), text(entity[field], "zone")],
  read: (row) => ({
    [field]:
      row[`${field}_at`] === "zone"
        ? { at: "zone", zone: row[`${field}_zone_id`] }
        : { at: row[`${field}_at`] },
  }),
});

const POSITION: Part = {
  columns: ["position_x", "position_y"],
  write: ({ position }) =>
    position === null ? [null, null] : [(position as { x: number }).x, (position as { y: number }).y],
  read: (row) => ({ position: row.position_x === null ? null : { x: row.position_x, y: row.position_y } }),
};

const ATTACHMENT: Part = {
  columns: ["attached_at", "port_id", "ssid_id", "access_point_id", "behind_host_id"],
  write: ({ attachment }) => [
    text(attachment, "at"),
    text(attachment, "port"),
    text(attachment, "ssid"),
    text(attachment, "accessPoint"),
    text(attachment, "host"),
  ],
  read: (row) => {
    switch (row.attached_at) {
      case "port":
        return { attachment: { at: "port", port: row.port_id } };
      case "ssid":
        return { attachment: { at: "ssid", ssid: row.ssid_id, accessPoint: row.access_point_id } };
      case "behind":
        return { attachment: { at: "behind", host: row.behind_host_id } };
      default:
        return { attachment: { at: "unplaced" } };
    }
  },
};

const SURVEYED: Part = {
  columns: ["room_id", "surveyed_as"],
  write: ({ surveyed }) => [text(surveyed ?? {}, "room"), text(surveyed ?? {}, "what")],
  read: (row) => ({ surveyed: row.room_id === null ? null : { room: row.room_id, what: row.surveyed_as } }),
};

/** The tree's kind and priority can be asked for in SQL; the rest is only read whole. */
const TREE: Part = {
  columns: ["tree_kind", "tree_priority", "tree_settings"],
  write: ({ tree }) => {
    const { kind, priority, ...settings } = tree as Fields;
    return [String(kind), Number(priority), JSON.stringify(settings)];
  },
  read: (row) => ({
    tree: {
      kind: row.tree_kind,
      priority: row.tree_priority,
      ...(JSON.parse(String(row.tree_settings)) as Fields),
    },
  }),
};

/** The site's own row; its id is the key, so it has no site_id. */
export const SITE_MAP: RowMap = {
  table: "site",
  parts: [
    value("name"),
    value("kind"),
    value("time_zone", "timeZone"),
    json("blocks"),
    json("conventions"),
    json("radio"),
    json("baseline"),
    json("keep_clear", "keepClear"),
    json("paper"),
  ],
};

/** Links have their ends in a table of their own: see `link-ends.ts`. */
export const ROW_MAPS: { readonly [K in Exclude<Kind, "site">]: RowMap } = {
  domain: { table: "domain", parts: [value("name")] },
  zone: {
    table: "zone",
    parts: [
      value("name"),
      flag("inside_open", "insideOpen"),
      value("control_level", "level"),
      value("security_level", "securityLevel"),
    ],
  },
  service: {
    table: "own_service",
    parts: [value("name"), json("parts"), json("includes"), value("note")],
  },
  conduit: {
    table: "conduit",
    parts: [value("name"), value("security_level", "securityLevel"), value("owner"), value("note")],
  },
  room: {
    table: "room",
    parts: [
      value("name"),
      value("kind"),
      value("position"),
      value("cabinet_id", "cabinet"),
      value("cable_cm", "cableCm"),
      value("height_units", "heightUnits"),
      value("building"),
      json("beside"),
      value("group_name", "group"),
      value("needs"),
    ],
  },
  hostKind: {
    table: "host_kind",
    parts: [
      value("name"),
      json("aliases"),
      value("base"),
      value("purpose"),
      value("manner"),
      flag("wireless", "wireless"),
      value("poe_class", "poeClass"),
      value("kbps"),
      flag("speaks_dhcp", "speaksDhcp"),
      flag("speaks_sign_in", "speaksSignIn"),
      value("internet"),
    ],
  },
  deviceModel: {
    table: "device_model",
    parts: [
      value("name"),
      value("kind"),
      value("bridging"),
      json("runs"),
      value("poe_budget_mw", "poeBudgetMw"),
      value("poe_one_lost_mw", "poeOneLostMw"),
      value("height_units", "heightUnits"),
      json("abilities"),
    ],
  },
  template: { table: "template", parts: [value("name"), value("ending"), value("body", "text")] },
  line: {
    table: "line",
    parts: [
      value("name"),
      value("access"),
      value("addressing"),
      value("vlan_tag", "vlanTag"),
      value("carrier_nat", "carrierNat"),
      value("provider_box", "providerBox"),
      flag("box_forwards", "boxForwards"),
      value("box_prefix", "boxPrefix"),
      value("locked"),
      value("down_mbps", "downMbps"),
      value("up_mbps", "upMbps"),
      value("length4"),
      value("next_hop4", "nextHop4"),
      value("length6"),
      value("next_hop6", "nextHop6"),
      json("dns"),
      value("place"),
      value("share"),
      json("watch"),
      json("pins"),
      json("dynamic_name", "dynamicName"),
      json("marks"),
      json("delegated"),
    ],
  },
  vlan: {
    table: "vlan",
    parts: [value("domain_id", "domain"), value("vid"), value("name"), value("purpose")],
  },
  segment: {
    table: "segment",
    parts: [
      value("zone_id", "zone"),
      value("vlan_id", "vlan"),
      value("name"),
      value("mark"),
      inner("tape", { tape_base: "base", tape_tracer: "tracer" }),
      json("prefixes4"),
      json("prefixes6"),
      value("gateway_interface_id", "gatewayInterface"),
      json("dns"),
      json("time_servers", "time"),
      value("domain_name", "domainName"),
      value("planned"),
      value("growth"),
      flag("management", "management"),
      value("purpose"),
      value("group_name", "group"),
      value("advertise"),
      json("visit"),
      json("tunnel"),
      value("traffic_class", "trafficClass"),
    ],
  },
  device: {
    table: "device",
    parts: [
      value("kind"),
      value("bridging"),
      value("name"),
      value("model"),
      value("domain_id", "domain"),
      value("place"),
      json("abilities"),
      value("rack_unit", "rackUnit"),
      value("height_units", "heightUnits"),
      value("feed"),
      value("backup_feed", "backupFeed"),
      value("poe"),
      value("poe_budget_mw", "poeBudgetMw"),
      value("poe_one_lost_mw", "poeOneLostMw"),
      json("hears"),
      json("repeats_discovery", "repeatsDiscovery"),
      value("bridge_mac", "bridgeMac"),
      TREE,
      json("protections"),
      json("admin_sign_in", "adminSignIn"),
      json("routes"),
      value("default_route", "defaultRoute"),
      json("filter_settings", "filter"),
      value("asks_from_interface_id", "asksFrom"),
      json("baseline"),
      value("serial"),
      value("hardware_revision", "hardwareRevision"),
      value("software_found", "softwareFound"),
      value("software_wanted", "softwareWanted"),
      value("registration"),
      value("licence_until", "licenceUntil"),
      value("support_until", "supportUntil"),
      value("credentials_place", "credentialsPlace"),
      value("vlan_name_limit", "vlanNameLimit"),
      POSITION,
      value("notes"),
    ],
  },
  gear: {
    table: "gear",
    parts: [
      value("name"),
      value("kind"),
      value("model"),
      value("room_id", "room"),
      json("addresses"),
      json("prefixes"),
      value("dhcp"),
      flag("faces_internet", "facesInternet"),
      value("support_until", "supportUntil"),
      value("fate"),
      value("device_id", "device"),
      value("notes"),
    ],
  },
  deviceVlan: { table: "device_vlan", parts: [value("device_id", "device"), value("vid"), value("name")] },
  lag: { table: "link_group", parts: [value("device_id", "device"), value("name"), value("mode")] },
  port: {
    table: "port",
    parts: [
      value("device_id", "device"),
      value("label"),
      value("software_name", "softwareName"),
      value("position"),
      value("medium"),
      value("speed_mbps", "speedMbps"),
      value("optic"),
      value("lag_id", "lag"),
      value("poe_mw", "poeMw"),
      flag("enabled", "enabled"),
      value("pvid"),
      json("untagged"),
      json("tagged"),
      value("admit"),
      flag("ingress_filter", "ingressFilter"),
      value("tree_priority", "treePriority"),
      value("tree_cost", "treeCost"),
      json("guards"),
      json("voice_policy", "voicePolicy"),
      value("note"),
    ],
  },
  link: {
    table: "link",
    parts: [
      value("medium"),
      value("cable"),
      value("length_cm", "lengthCm"),
      value("label"),
      value("panel"),
      value("socket"),
    ],
  },
  interface: {
    table: "interface",
    parts: [
      value("device_id", "device"),
      value("port_id", "port"),
      value("segment_id", "segment"),
      value("line_id", "line"),
      value("name"),
      value("mac"),
      json("addresses4"),
      json("addresses6"),
      value("relay_to", "relayTo"),
      value("translates"),
    ],
  },
  ssid: {
    table: "ssid",
    parts: [
      value("name"),
      value("segment_id", "segment"),
      json("more_segments", "moreSegments"),
      value("security"),
      value("profile_id", "profile"),
      flag("hidden", "hidden"),
      flag("isolation", "isolation"),
      json("bands"),
      json("offered_at", "at"),
    ],
  },
  radio: {
    table: "radio",
    parts: [
      value("device_id", "device"),
      value("band"),
      flag("enabled", "enabled"),
      value("channel"),
      value("width_mhz", "widthMhz"),
      value("power"),
    ],
  },
  host: {
    table: "host",
    parts: [
      value("name"),
      value("kind"),
      value("mac"),
      value("manner"),
      value("ipv4"),
      value("ipv6"),
      value("length4"),
      value("gateway4"),
      value("length6"),
      value("gateway6"),
      json("dns"),
      value("segment_id", "segment"),
      ATTACHMENT,
      value("tag"),
      flag("changes_mac", "changesMac"),
      value("poe"),
      value("place"),
      SURVEYED,
      value("notes"),
    ],
  },
  scope: {
    table: "scope",
    parts: [
      value("segment_id", "segment"),
      value("server_device_id", "serverDevice"),
      value("server_host_id", "serverHost"),
      value("family"),
      json("pools"),
      json("exclusions"),
      value("lease_seconds", "leaseSeconds"),
      json("options"),
    ],
  },
  signIn: {
    table: "sign_in",
    parts: [
      value("name"),
      json("servers"),
      value("udp_port", "port"),
      flag("by_mac", "byMac"),
      value("visitors_vid", "visitors"),
      value("failed_vid", "failed"),
      value("server_down_vid", "serverDown"),
      value("server_down_voice_vid", "serverDownVoice"),
      value("stage"),
      json("before_it", "before"),
      value("port_hosts", "hosts"),
      value("tried_first", "order"),
      flag("sign_in_wins", "signInWins"),
      flag("by_answer", "byAnswer"),
      value("accounting_port", "accountingPort"),
      value("change_port", "changePort"),
      json("timers"),
      json("sends"),
      value("certificate_until", "certificateUntil"),
      value("secret_place", "secretPlace"),
      value("note"),
    ],
  },
  forward: {
    table: "forward",
    parts: [
      value("name"),
      value("line_id", "line"),
      value("protocol"),
      json("ports"),
      value("host_id", "host"),
      value("to_port", "toPort"),
      flag("hairpin", "hairpin"),
      json("sources"),
      value("until_day", "until"),
    ],
  },
  exception: {
    table: "wall_exception",
    parts: [
      value("name"),
      json("from_side", "from"),
      json("to_side", "to"),
      json("services"),
      value("owner"),
      value("reason"),
      value("first_day", "firstDay"),
      value("last_day", "lastDay"),
      json("hours"),
      value("conduit_id", "conduit"),
    ],
  },
  wish: {
    table: "wish",
    parts: [
      value("name"),
      value("host_id", "host"),
      json("service"),
      json("sources", "from"),
      value("way"),
      value("note"),
    ],
  },
  leaflet: {
    table: "leaflet",
    parts: [
      value("model"),
      value("addressing"),
      value("address4"),
      value("length4"),
      value("gives"),
      value("opens"),
      value("light"),
      value("start_seconds", "startSeconds"),
      value("reset_seconds", "resetSeconds"),
      flag("restarts", "restarts"),
      value("name_rule", "nameRule"),
      value("name_most", "nameMost"),
      value("notes"),
    ],
  },
  window: {
    table: "work_window",
    parts: [
      value("name"),
      value("starts"),
      value("minutes"),
      json("segments"),
      value("permit"),
      value("consent"),
      value("notes"),
    ],
  },
  acceptance: {
    table: "acceptance",
    parts: [
      value("finding"),
      value("says"),
      value("reason"),
      value("accepted_by", "by"),
      value("until_day", "until"),
    ],
  },
  expectation: {
    table: "expectation",
    parts: [
      value("name"),
      json("question"),
      flag("passes", "passes"),
      value("segment_id", "segment"),
      value("note"),
    ],
  },
  wall: {
    table: "wall",
    parts: [
      wallEnd("from"),
      wallEnd("to"),
      value("door"),
      json("services"),
      value("reason"),
      value("conduit_id", "conduit"),
    ],
  },
  rule: {
    table: "rule",
    parts: [
      value("device_id", "device"),
      value("place"),
      json("from_sides", "from"),
      json("to_sides", "to"),
      json("services"),
      value("action"),
      flag("enabled", "enabled"),
      flag("log_it", "log"),
      value("note"),
    ],
  },
};
