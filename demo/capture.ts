// A capture as somebody would take it at the practice: the reception's printer asks for its address.
import { listenAt, pcapng } from "../src/core/capture";
import { must } from "../src/core/kernel";
import { afterEdits, PlanEdits, PlanIndex, vid as asVid } from "../src/core/plan";
import { asClient, probe } from "../src/core/probe";
import { fennelStreet } from "./fennel-street";

/** What is asked, a second apart. */
const GOALS = [{ to: "address" }, { to: "internet", service: null }] as const;

/** What is heard at the printer's port on the upper switch while that port is in VLAN `vid`. */
export function printerHeard(vid: number): Uint8Array {
  const plan = fennelStreet();
  const printer = must(
    [...plan.host.values()].find(({ name }) => name === "Reception printer"),
    "the printer",
  );
  const port = printer.attachment.at === "port" ? printer.attachment.port : "";
  const pvid = must(asVid(vid), "a VLAN");
  const edits = new PlanEdits(plan);
  edits.patch("port", port, { pvid, untagged: [pvid] });
  const site = afterEdits(PlanIndex.of(plan), edits) ?? PlanIndex.of(plan);
  const frames = GOALS.flatMap((goal, at) => {
    const { exchange } = probe(site, asClient({ at: "host", host: printer.id }, goal), () => "");
    return listenAt(site, exchange, port).map((frame) => ({ ...frame, ms: frame.ms + at * 1000 }));
  });
  return pcapng(frames, "Upper switch port 4", Date.UTC(2026, 10, 30, 9));
}

/** The VLAN of the phones, in which that port was left. */
export const LEFT_IN = 30;
