"use client";

import { addTemplate, editTemplate, removeTemplate, writeTemplate } from "@/core/commands";
import { useState } from "react";
import { toast } from "sonner";
import {
  deviceData,
  deviceJson,
  deviceTable,
  EXAMPLE_TEMPLATES,
  yangText,
  type DeviceData,
} from "@/core/device-sheet";
import type { Template } from "@/core/plan";
import { devicesInOrder } from "@/core/sheets";
import { useUi } from "../../frame/use-ui";
import { Combo } from "../../kit/Combo";
import { csv, CSV_TYPE, download, fileName, type MediaType } from "../../kit/download";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan, usePlanStore } from "../../plan-store/use-plan";
import { DeviceSteps } from "./DeviceSteps";
import { useTemplate } from "./use-template";
import { deviceOfSelection } from "@/ui/frame/ui-state";

const FORMS = [
  ["steps", "Steps, to be printed"],
  ["csv", "CSV"],
  ["json", "JSON"],
  ["yang", "YANG data as JSON"],
] as const;
const EXAMPLE = "example ";

/** Everything to be entered on one device, in the order in which it is entered, in the form that is wanted. */
// eslint-disable-next-line max-lines-per-function -- one sheet with its choices
export function SheetPanel() {
  const index = useIndex();
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const [form, setForm] = useState<string>("steps");
  const devices = devicesInOrder(index);
  const wanted = deviceOfSelection(selection);
  const device =
    devices.find((device) => device.id === wanted) ??
    devices.find((device) => device.kind === "switch") ??
    devices[0];
  if (device === undefined) return null;
  const data = deviceData(index, device);
  const templates = [...index.plan.template.values()];
  const own = templates.find((template) => template.id === form);
  const example = EXAMPLE_TEMPLATES.find((template) => `${EXAMPLE}${template.name}` === form);
  const shown =
    own === undefined && example === undefined ? (FORMS.find(([key]) => key === form)?.[0] ?? "steps") : form;
  const name = (ending: string) => fileName(data.hostName || "device", `sheet.${ending}`);
  const texts: Readonly<Record<string, readonly [text: string, type: MediaType, ending: string]>> = {
    csv: [csv(deviceTable(data)), CSV_TYPE, "csv"],
    json: [deviceJson(data), "application/json", "json"],
    yang: [yangText(data), "application/yang-data+json", "json"],
  };
  const plain = texts[shown];
  return (
    <>
      <div className="flex flex-wrap items-center gap-2 border-b border-hair px-4 py-2 text-13 print:hidden">
        <Combo
          label="Device"
          value={device.id}
          empty="Choose a device"
          choices={devices.map((device) => ({ value: device.id, label: device.name, detail: device.place }))}
          onChoose={(id) => select({ what: "device", id })}
        />
        <label className="flex items-center gap-2">
          as
          <select
            aria-label="Form"
            className="field"
            value={shown}
            onChange={(event) => setForm(event.target.value)}
          >
            {FORMS.map(([key, words]) => (
              <option key={key} value={key}>
                {words}
              </option>
            ))}
            {templates.length === 0 ? null : (
              <optgroup label="Your templates">
                {templates.map((template) => (
                  <option key={template.id} value={template.id}>
                    {template.name}
                  </option>
                ))}
              </optgroup>
            )}
            <optgroup label="Example templates">
              {EXAMPLE_TEMPLATES.map((template) => (
                <option key={template.name} value={`${EXAMPLE}${template.name}`}>
                  {template.name}
                </option>
              ))}
            </optgroup>
          </select>
        </label>
        <span className="flex-1" />
        {shown === "steps" ? (
          <button type="button" className="button go" onClick={() => window.print()}>
            Print
          </button>
        ) : null}
        {plain === undefined ? null : (
          <button
            type="button"
            className="button go"
            onClick={() => download(name(plain[2]), plain[1], plain[0])}
          >
            Save {plain[2].toUpperCase()}
          </button>
        )}
      </div>
      <div
        role="region"
        aria-label="The sheet"
        className="print-whole min-h-0 flex-1 overflow-auto"
        tabIndex={0}
      >
        {shown === "steps" ? <DeviceSteps data={data} revised={index.today} /> : null}
        {plain === undefined ? null : <pre className="mono p-4 text-12 whitespace-pre-wrap">{plain[0]}</pre>}
        {own === undefined && example === undefined ? null : (
          <TemplatePanel
            key={form}
            data={data}
            own={own}
            example={example}
            fileNameOf={name}
            choose={setForm}
          />
        )}
      </div>
    </>
  );
}

interface TemplateProps {
  readonly data: DeviceData;
  readonly own: Template | undefined;
  readonly example: (typeof EXAMPLE_TEMPLATES)[number] | undefined;
  readonly fileNameOf: (ending: string) => string;
  readonly choose: (form: string) => void;
}

/**
 * A template with what it makes of this device, filled as one types. An example is only read; a copy of it is
 * one's own.
 */
// eslint-disable-next-line max-lines-per-function, complexity -- one form with its preview
function TemplatePanel({ data, own, example, fileNameOf, choose }: TemplateProps) {
  const store = usePlanStore();
  const edit = usePlan((state) => state.edit);
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed ?? own?.text ?? example?.text ?? "";
  const ending = own?.ending ?? example?.ending ?? "txt";
  const filled = useTemplate(text, data);
  const [output, fault] = [filled?.text ?? null, filled?.fault ?? null];
  const copy = () => {
    const name = `My ${(example?.name ?? "template").toLowerCase()}`;
    const refusal = edit(addTemplate({ name, ending, text }));
    if (refusal !== null) return toast.error(refusal);
    const made = [...(store.getState().held?.index.plan.template.keys() ?? [])].at(-1);
    if (made !== undefined) choose(made);
  };
  const write = () => {
    if (own === undefined || typed === null || typed === own.text) return;
    const refusal = edit(writeTemplate({ template: own.id, text: typed }));
    if (refusal !== null) toast.error(refusal);
    else setTyped(null);
  };
  return (
    <div className="grid min-h-full grid-cols-2 max-[1100px]:grid-cols-1">
      <div className="flex flex-col border-r border-hair p-4">
        {own === undefined ? (
          <p className="mb-2 flex items-center gap-2 text-13 text-ink2">
            An example.{" "}
            <button type="button" className="button" onClick={copy}>
              Copy it to change it
            </button>
          </p>
        ) : (
          <div className="-mx-4 mb-2">
            <TextField
              label="Name"
              value={own.name}
              write={(name) => edit(editTemplate({ template: own.id, fields: { name } }))}
            />
            <TextField
              label="File ending"
              mono
              value={own.ending}
              write={(ending) => edit(editTemplate({ template: own.id, fields: { ending: ending } }))}
            />
          </div>
        )}
        <textarea
          aria-label="Template"
          readOnly={own === undefined}
          className="mono min-h-72 flex-1 resize-none rounded border border-rule bg-panel p-2 text-12"
          spellCheck={false}
          value={text}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={write}
        />
        <p className="pt-2 text-12 text-ink2">
          Written in Liquid. It sees this device’s data, as the JSON form shows it, and nothing else.
        </p>
        {own === undefined ? null : (
          <div className="pt-2">
            <button
              type="button"
              className="button danger"
              onClick={() => {
                edit(removeTemplate({ template: own.id }));
                choose("steps");
              }}
            >
              Remove
            </button>
          </div>
        )}
      </div>
      <div className="flex min-w-0 flex-col p-4">
        <div className="mb-2 flex min-h-7 items-center text-13 text-ink2">
          {filled === null ? <span role="status">Filling …</span> : "What it makes"}
          <button
            type="button"
            className="button go ml-auto"
            disabled={output === null}
            onClick={() => {
              if (output !== null) download(fileNameOf(ending), "text/plain;charset=utf-8", output);
            }}
          >
            Save
          </button>
        </div>
        {fault === null ? null : (
          <p role="alert" className="border border-stop bg-stop-wash p-2 text-13 text-stop">
            {fault}
          </p>
        )}
        {output === null ? null : (
          <pre className="mono overflow-x-auto text-12 whitespace-pre-wrap">{output}</pre>
        )}
      </div>
    </div>
  );
}
