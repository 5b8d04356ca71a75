import { z } from "zod";
import { addressField, countField, groupField, setField } from "./fields";

/** The ways in which administrators get at gear. */
export const WAYS_IN = ["https", "http", "ssh", "telnet", "snmpV3", "snmpV2", "console"] as const;
export type WayIn = (typeof WAYS_IN)[number];

/**
 * How gear is administered: what is entered on a device, and what the site wants on all of its devices. What
 * nobody has decided is empty, null or open.
 */
export const baselineField = groupField(
  z.strictObject({
    waysIn: setField(z.array(z.enum(WAYS_IN)).max(WAYS_IN.length)).meta({
      description: "Ways in that are on, every other is switched off; empty: not decided",
    }),
    idleMinutes: z
      .int()
      .min(1)
      .max(1440)
      .nullable()
      .meta({ description: "Minutes after which an administrator who does nothing is signed out" }),
    passwordLength: z
      .int()
      .min(1)
      .max(128)
      .nullable()
      .meta({ description: "Fewest characters of an administrator's password; never the password" }),
    passwordDays: countField(3650)
      .nullable()
      .meta({ description: "Days after which it is changed; 0 for never" }),
    nameServers: z.array(addressField).max(4).meta({ description: "DNS servers that gear itself asks" }),
    timeServers: z.array(addressField).max(8).meta({ description: "Time servers (RFC 5905) that it asks" }),
    logTo: z.array(addressField).max(4).meta({ description: "Where it sends its log (RFC 5424)" }),
    clock: z
      .enum(["open", "site", "utc"])
      .meta({ description: "site: the site's time zone with its summer time; utc: UTC" }),
    uplinks: z.enum(["open", "byHand", "automatic"]).meta({
      description: "byHand: ports to other gear are set by hand, automatic port roles are off",
    }),
    describes: z
      .enum(["open", "yes", "no"])
      .meta({ description: "Whether ports to other gear say on the device where they lead" }),
  }),
);
export type Baseline = z.output<typeof baselineField>;
