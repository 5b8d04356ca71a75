"use client";

import { notePorts } from "@/core/commands";
import { loadAt, poeStandard } from "@/core/power";
import { jacketOf, jacketText, pluggedIn, runText } from "@/core/sheets";
import { counted } from "@/core/repairs";
import { useGoTo } from "../../frame/go-to";
import { useUi } from "../../frame/use-ui";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { FindingsSection } from "../findings/FindingsSection";
import { HistorySection } from "../HistorySection";
import { Guards } from "./Guards";
import { JoinPorts } from "./JoinPorts";
import { PortFields } from "./PortFields";
import { Caution, Fact, MarginHead, Section } from "../parts";

function pluggedWords(plugged: readonly string[], isSingle: boolean): string {
  if (plugged.length === 0) return "nothing";
  return isSingle ? (plugged[0] ?? "") : `${counted(plugged.length, "port", "ports")} in use`;
}

/** The chosen run of ports: its count said aloud, what is in it, its findings and those of the switch. */
// eslint-disable-next-line complexity -- one port or several, and each fact where they share it
export function PortsMargin({ device, ids }: { device: string; ids: readonly string[] }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const setUi = useUi((state) => state.set);
  const goTo = useGoTo();
  const all = index.portsOf(device);
  const ports = all.filter((port) => ids.includes(port.id));
  const [first] = ports;
  if (first === undefined) return null;
  const isSingle = ports.length === 1;
  const name = index.plan.device.get(device)?.name ?? "";
  const run = runText(ports, all);
  const cable = index.linkAt(first.id);
  const load = isSingle ? loadAt(index, first) : null;
  const plugged = ports.map((port) => pluggedIn(index, port)).filter((text) => text !== "");
  const softs = `${first.softwareName}${isSingle ? "" : ` to ${ports.at(-1)?.softwareName ?? ""}`}`;
  const probeFrom = () => {
    setUi({
      probe: {
        from: { at: "port", port: first.id, tag: null },
        as: { as: "client" },
        family: 4,
        goal: { to: "address" },
      },
    });
    goTo.view("probe");
  };
  return (
    <>
      <MarginHead kick={isSingle ? "Selected port" : "Selected run"}>
        {isSingle ? `${name} port ${run}` : `Ports ${run}`}
      </MarginHead>
      <dl className="facts">
        <Fact name="Count">
          {ports.length}: case {run}, soft <span className="mono">{softs}</span>
        </Fact>
        <Fact name="Plugged in">{pluggedWords(plugged, isSingle)}</Fact>
        {isSingle ? <Fact name="Carries">{jacketText(jacketOf(index, first))}</Fact> : null}
        {isSingle ? (
          <Fact name="Speed">
            {first.speedMbps} Mbit/s, {first.medium}
            {first.optic === "none" ? "" : `, ${first.optic}`}
            {first.lag === null ? "" : `, in ${index.plan.lag.get(first.lag)?.name ?? "a LAG"}`}
          </Fact>
        ) : null}
        {first.poeMw === 0 ? null : (
          <Fact name="PoE">
            {poeStandard(first.poeMw)}, up to {first.poeMw / 1000} W a port
            {load === null ? "" : `; ${load.name} takes class ${load.poeClass}`}
          </Fact>
        )}
      </dl>
      <FindingsSection ids={new Set(ids)} />
      <FindingsSection
        ids={new Set(all.map((port) => port.id).filter((id) => !ids.includes(id)))}
        title="Others on this device"
      />
      <Section title="Change">
        {isSingle ? <PortFields port={first} /> : null}
        <TextField
          key={first.id}
          label="Note"
          value={first.note}
          placeholder="Way back in, keep free"
          write={(text) => edit(notePorts({ ports: ids, text }))}
        />
      </Section>
      <Guards key={ids.join(" ")} ports={ports} />
      {ports.length < 2 ? null : <JoinPorts run={run} ports={ports} />}
      <Caution head="On a live network">
        paint the far end of a trunk first, and keep one port as a rescue port.
      </Caution>
      {isSingle ? (
        <div className="section px-4 pt-3">
          <button type="button" className="button" onClick={probeFrom}>
            Probe from this port
          </button>
        </div>
      ) : null}
      {isSingle ? <HistorySection about={first.id} also={cable === undefined ? [] : [cable.id]} /> : null}
    </>
  );
}
