import { listenAt, pcapng } from "../capture";
import { Listener, type HeardFile } from "../heard";
import type { Host, PlanIndex } from "../plan";
import { asClient, probe } from "../probe";

const nobody = () => "";

/** What is heard at a port while devices ask for their addresses and for the internet. */
export function heardAt(index: PlanIndex, port: string, hosts: readonly Host[]): HeardFile {
  const frames = hosts.flatMap(({ id }, at) =>
    (["address", "internet"] as const).flatMap((to, i) => {
      const question = asClient({ at: "host", host: id }, to === "address" ? { to } : { to, service: null });
      const { exchange } = probe(index, question, nobody);
      return listenAt(index, exchange, port).map((frame) => ({
        ...frame,
        ms: frame.ms + (at * 2 + i) * 2000,
      }));
    }),
  );
  const listener = new Listener();
  listener.push(pcapng(frames, "here", Date.UTC(2026, 10, 30)));
  return listener.end();
}
