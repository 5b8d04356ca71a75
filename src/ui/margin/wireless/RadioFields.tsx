"use client";

import { clsx } from "clsx";
import { setChannel, setHearing, setRadio, setRadioIn } from "@/core/commands";
import { toast } from "sonner";
import { BANDS, type Device, type Radio } from "@/core/plan";
import { BAND_WORDS, widthsFor } from "@/core/planners";
import { pointRows } from "@/core/sheets";
import { Choose } from "../../kit/Choose";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { Section } from "../parts";

/** The radios of an access point, and the other access points that it hears. */
export function RadioFields({ device }: { device: Device }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const rows = pointRows(index);
  const row = rows.find((pointRow) => pointRow.device.id === device.id);
  if (row === undefined) return null;
  const others = rows.filter((pointRow) => pointRow.device.id !== device.id);
  return (
    <>
      <Section title="Radios">
        {BANDS.map((band) => {
          const radio = row.radios.find((radio) => radio.band === band);
          return (
            <div key={band}>
              <label className="flex min-h-7 items-center gap-2 px-4 text-13 font-semibold">
                <input
                  type="checkbox"
                  checked={radio !== undefined}
                  onChange={(event) =>
                    edit(setRadioIn({ device: device.id, band, on: event.target.checked }))
                  }
                />
                {BAND_WORDS[band]}
              </label>
              {radio === undefined ? null : <RadioRow radio={radio} />}
            </div>
          );
        })}
      </Section>
      {others.length === 0 ? null : (
        <Section title="Hears">
          {others.map(({ device: other }) => {
            const heard = row.hears.find((heard) => heard.device.id === other.id);
            const byRoom = heard !== undefined && !heard.entered;
            return (
              <label key={other.id} className="flex min-h-6 items-center gap-2 px-4 text-13">
                <input
                  type="checkbox"
                  checked={heard !== undefined}
                  disabled={byRoom}
                  onChange={(event) =>
                    edit(setHearing({ a: device.id, b: other.id, on: event.target.checked }))
                  }
                />
                {other.name}
                <span
                  className={clsx(
                    "text-12",
                    heard !== undefined && heard.clashes.length > 0 ? "text-warn" : "text-ink2",
                  )}
                >
                  {[
                    byRoom ? "same or adjacent room" : "",
                    heard === undefined || heard.clashes.length === 0
                      ? ""
                      : `overlaps in ${heard.clashes.map((band) => BAND_WORDS[band]).join(", ")}`,
                  ]
                    .filter((text) => text !== "")
                    .join("; ")}
                </span>
              </label>
            );
          })}
        </Section>
      )}
    </>
  );
}

function RadioRow({ radio }: { radio: Radio }) {
  const edit = usePlan((state) => state.edit);
  const set = (fields: Partial<Pick<Radio, "widthMhz" | "power" | "enabled">>) => {
    const refusal = edit(setRadio({ radio: radio.id, fields }));
    if (refusal !== null) toast.error(refusal);
    return refusal;
  };
  return (
    <>
      <Choose
        label="It is"
        value={radio.enabled ? "on" : "off"}
        choices={[
          ["on", "on"],
          ["off", "off"],
        ]}
        onChoose={(state) => {
          set({ enabled: state === "on" });
        }}
      />
      <TextField
        label="Channel"
        mono
        value={radio.channel === null ? "" : String(radio.channel)}
        placeholder="left to it"
        write={(text) => edit(setChannel({ radio: radio.id, text }))}
      />
      <Choose
        label="Width"
        value={String(radio.widthMhz)}
        choices={widthsFor(radio.band).map((width) => [String(width), `${width} MHz`] as const)}
        onChoose={(text) => {
          const width = widthsFor(radio.band).find((width) => String(width) === text);
          if (width !== undefined) set({ widthMhz: width });
        }}
      />
      <TextField
        label="Power"
        value={radio.power}
        placeholder="a note, by the local rules"
        write={(power) => set({ power })}
      />
    </>
  );
}
