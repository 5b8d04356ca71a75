"use client";

import { useEffect, useState } from "react";
import type { Device, PlanIndex } from "@/core/plan";
import type { BenchAnswer } from "@/http/contracts/device-contracts";
import type { ReadableAnswer, ReadAnswer } from "@/http/contracts/answers";
import { call } from "../../plan-store/api";

/** Something that can be asked over the network: the stand-in, or a real device of the list. */
interface AskProps {
  readonly index: PlanIndex;
  readonly device: Device;
  readonly onHeard: (text: string) => void;
}

/** A device is asked over the network: the one that stands in, or a real one that may be read. */
export function AskDevice(props: AskProps) {
  const { index, device, onHeard } = props;
  const { allowed, sentence, isBusy, run } = useAsking(index.plan.site.id);
  const askStandIn = () =>
    run(async (site) => {
      const answer = await call<BenchAnswer>(`/api/sites/${site}/stand-ins`, "POST", {
        do: "ask",
        device: device.id,
        asking: { what: "read" },
      });
      if (!answer.ok) return answer.refused.sentence;
      const { heard } = answer.value;
      if (heard === null)
        return `${device.name} keeps silent: the laptop does not reach it from where it is (On stand-ins).`;
      if (heard.status !== 200) return `${device.name} answered ${heard.status}.`;
      onHeard(heard.text);
      return null;
    });
  return (
    <div className="flex flex-col gap-2">
      <p className="flex flex-wrap items-center gap-2">
        <button type="button" className="button" disabled={isBusy} onClick={() => void askStandIn()}>
          Ask the stand-in
        </button>
        {isBusy ? <span role="status">asking …</span> : null}
      </p>
      {allowed.length === 0 ? null : <AskReal {...props} allowed={allowed} run={run} isBusy={isBusy} />}
      {sentence === null ? null : (
        <p role="alert" className="break-words text-stop">
          {sentence}
        </p>
      )}
    </div>
  );
}

type Run = (ask: (site: string) => Promise<string | null>) => Promise<void>;

/** One question at a time, with the sentence why it has no answer. */
function useAsking(site: string) {
  const [allowed, setAllowed] = useState<readonly string[]>([]);
  const [sentence, setSentence] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  useEffect(() => {
    let isGone = false;
    void call<ReadableAnswer>(`/api/sites/${site}/read-device`).then((answer) => {
      if (!isGone && answer.ok) setAllowed(answer.value.allowed);
    });
    return () => {
      isGone = true;
    };
  }, [site]);
  const run: Run = async (ask) => {
    setBusy(true);
    setSentence(null);
    setSentence(await ask(site));
    setBusy(false);
  };
  return { allowed, sentence, isBusy, run };
}

/** A real device: name and password are typed for this once and kept nowhere. */
function AskReal({
  onHeard,
  allowed,
  run,
  isBusy,
}: AskProps & { allowed: readonly string[]; run: Run; isBusy: boolean }) {
  const [address, setAddress] = useState(allowed[0] ?? "");
  const [user, setUser] = useState("");
  const [password, setPassword] = useState("");
  const [fingerprint, setFingerprint] = useState("");
  const ask = () =>
    run(async (site) => {
      const body = { address, user, password, fingerprint: fingerprint.trim() };
      const answer = await call<ReadAnswer>(`/api/sites/${site}/read-device`, "POST", body);
      if (!answer.ok) return answer.refused.sentence;
      onHeard(answer.value.text);
      return null;
    });
  const field = (label: string, value: string, set: (text: string) => void, type = "text") => (
    <label className="flex min-w-0 flex-1 basis-32 flex-col text-12 text-ink2">
      {label}
      <input
        className="field h-8 text-13 text-ink"
        type={type}
        value={value}
        autoComplete="off"
        onChange={(event) => set(event.target.value)}
      />
    </label>
  );
  return (
    <form
      aria-label="A real device"
      className="flex flex-wrap items-end gap-2 border-t border-hair pt-2"
      onSubmit={(event) => {
        event.preventDefault();
        void ask();
      }}
    >
      <label className="flex min-w-0 flex-1 basis-40 flex-col text-12 text-ink2">
        A real device
        <select
          className="field h-8 text-13 text-ink"
          value={address}
          onChange={(event) => setAddress(event.target.value)}
        >
          {allowed.map((command) => (
            <option key={command}>{command}</option>
          ))}
        </select>
      </label>
      {field("Its user", user, setUser)}
      {field("Password, for this once", password, setPassword, "password")}
      {field("Fingerprint of its certificate", fingerprint, setFingerprint)}
      <button type="submit" className="button" disabled={isBusy}>
        Ask it
      </button>
    </form>
  );
}
