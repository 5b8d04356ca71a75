"use client";

import { editSsidText, removeSsids, setSsid } from "@/core/commands";
import { toast } from "sonner";
import {
  hasRadios,
  BANDS,
  PlanEdits,
  pointsOf,
  SECURITIES,
  type Band,
  type PlanIndex,
  type Ssid,
} from "@/core/plan";
import { BAND_WORDS, ssidCellText, type SsidColumn } from "@/core/planners";
import { SECURITY_FACTS } from "@/core/wireless";
import { useUi } from "../../frame/use-ui";
import { Choose } from "../../kit/Choose";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { SegmentChip } from "../../tape/Chip";
import { FindingsSection } from "../findings/FindingsSection";
import { HistorySection } from "../HistorySection";
import { Fact, MarginHead, Section } from "../parts";

/** What can be written in a column, where it names something. */
function offersFor({ plan }: PlanIndex, column: SsidColumn): string[] {
  if (column === "segment") return [...plan.segment.values()].map(({ name }) => name);
  return column === "profile" ? [...plan.signIn.values()].map(({ name }) => name) : [];
}

/** A wireless name: where it leads, how it is secured, who offers it. */
// eslint-disable-next-line max-lines-per-function -- the fields of one name in their order
export function SsidMargin({ id }: { id: string }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const ssid = index.plan.ssid.get(id);
  if (ssid === undefined) return null;
  const edits = new PlanEdits(index.plan);
  const segment = index.plan.segment.get(ssid.segment);
  const points = [...index.plan.device.values()].filter((device) => hasRadios(device));
  const offering = pointsOf(index, ssid);
  const stations = [...index.plan.host.values()].filter(
    (host) => host.attachment.at === "ssid" && host.attachment.ssid === id,
  ).length;
  const set = (fields: Partial<Omit<Ssid, "id">>) => {
    const refusal = edit(setSsid({ ssid: id, fields }));
    if (refusal !== null) toast.error(refusal);
  };
  const field = (column: SsidColumn, label: string, hint = "") => (
    <TextField
      key={column}
      label={label}
      value={ssidCellText(edits, ssid, column)}
      placeholder={hint}
      offers={offersFor(index, column)}
      write={(text) => edit(editSsidText({ ssid: id, column, text }))}
    />
  );
  const tick = (key: string, on: boolean, words: string, write: (on: boolean) => void) => (
    <label key={key} className="flex min-h-6 items-center gap-2 px-4 text-13">
      <input type="checkbox" checked={on} onChange={(event) => write(event.target.checked)} />
      {words}
    </label>
  );
  const band = (option: Band) =>
    tick(option, ssid.bands.includes(option), BAND_WORDS[option], (on) =>
      set({ bands: BANDS.filter((other) => (other === option ? on : ssid.bands.includes(other))) }),
    );
  const remove = () => {
    edit(removeSsids({ ssids: [id] }));
    select(null);
  };
  return (
    <>
      <MarginHead kick="Selected wireless name">
        {segment === undefined ? null : <SegmentChip segment={segment} />}
        {ssid.name}
      </MarginHead>
      <dl className="facts">
        <Fact name="Offered by">
          {offering.length === 0 ? "no access point" : offering.map((device) => device.name).join(", ")}
        </Fact>
        <Fact name="Stations">{stations} in the register</Fact>
        <Fact name="Secured">
          {SECURITY_FACTS[ssid.security].words}
          {SECURITY_FACTS[ssid.security].secret ? "; the word itself is kept elsewhere" : ""}
        </Fact>
      </dl>
      <FindingsSection ids={new Set([id])} />
      <Section title="Change">
        {field("name", "Name")}
        {field("segment", "Leads into")}
        {field("more", "Or by sign-in", "segments, with commas")}
        <Choose
          label="Security"
          value={ssid.security}
          choices={SECURITIES.map((security) => [security, SECURITY_FACTS[security].words] as const)}
          onChoose={(security) => set({ security })}
        />
        {SECURITY_FACTS[ssid.security].signsIn ? field("profile", "Asks", "sign-in profile") : null}
        {tick("hidden", ssid.hidden, "hidden", (hidden) => set({ hidden }))}
        {ssid.hidden ? (
          <p className="px-4 pb-1 text-12 text-ink2">
            Hiding keeps nobody out: every device that knows the name calls it out wherever it goes.
          </p>
        ) : null}
        {tick("isolation", ssid.isolation, "its stations can’t reach one another", (isolation) =>
          set({ isolation }),
        )}
        {BANDS.map(band)}
      </Section>
      <Section title="Offered at">
        {tick("everywhere", ssid.at.length === 0, "every access point of its domain", (on) =>
          set({ at: on ? [] : points.map((device) => device.id) }),
        )}
        {ssid.at.length === 0
          ? null
          : points.map((device) =>
              tick(device.id, ssid.at.includes(device.id), device.name, (on) => {
                const at = on ? [...ssid.at, device.id] : ssid.at.filter((point) => point !== device.id);
                if (at.length === 0)
                  toast.error(
                    `${ssid.name} would be offered nowhere; remove the ` +
                      "name instead, or choose another access point first.",
                  );
                else set({ at });
              }),
            )}
      </Section>
      <div className="section px-4 pt-3">
        <button type="button" className="button danger" onClick={remove}>
          Remove the name
        </button>
      </div>
      <HistorySection about={id} />
    </>
  );
}
