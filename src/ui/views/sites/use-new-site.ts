import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { v7 } from "uuid";
import type { FileFault } from "@/core/formats";
import { MOST_FILE_BYTES } from "@/core/records";
import { call } from "../../plan-store/api";
import { afterFrame } from "../../plan-store/judge";

/** What a site is begun with. */
interface Begun {
  readonly name: string;
  readonly kind: string;
  readonly customer: string | null;
}

const NO_JSON =
  "is not JSON, so it is no plan file. Choose the .json file that Hand-over wrote under Open formats.";
const UNREADABLE = "can’t be read: it was moved or changed since it was chosen. Choose it again.";

const megabytes = (bytes: number): number => Math.max(1, Math.ceil(bytes / 1_000_000));

/** The ids of what was asked for last, so that the same asked again after a lost answer is the same site. */
function useAskedIds() {
  const asked = useRef({ what: "", id: "", batch: "" });
  return (...what: readonly unknown[]) => {
    const text = JSON.stringify(what);
    if (asked.current.what !== text) asked.current = { what: text, id: v7(), batch: v7() };
    return asked.current;
  };
}

/**
 * Begins a site by its name, or from a plan file. `busy` says what is under way, null for nothing; `refusal`
 * and `faults` why the last try came to nothing.
 */
export function useNewSite() {
  const router = useRouter();
  const [refusal, setRefusal] = useState<string | null>(null);
  const [faults, setFaults] = useState<readonly FileFault[]>([]);
  const [busy, setBusy] = useState<string | null>(null);
  const idsOf = useAskedIds();
  const refuse = (sentence: string, more: readonly FileFault[] = []) => {
    setBusy(null);
    setRefusal(sentence);
    setFaults(more);
  };
  const send = async (id: string, body: object) => {
    const answer = await call<{ id: string }>("/api/sites", "POST", { id, ...body });
    if (answer.ok) router.push(`/sites/${id}/survey`);
    else refuse(answer.refused.sentence, answer.refused.faults);
  };
  const begin = (words: string) => {
    setRefusal(null);
    setFaults([]);
    setBusy(words);
  };
  const byName = async ({ name, kind, customer }: Begun) => {
    if (name === "") return refuse("Give the site a name: the customer’s, or the building’s.");
    begin(`${name} is begun …`);
    const timeZone = Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC";
    return send(idsOf(name, kind, customer).id, { by: "name", name, kind, customer, timeZone });
  };
  const byFile = async (file: File, customer: string | null) => {
    if (file.size > MOST_FILE_BYTES)
      return refuse(
        `${file.name} has ${megabytes(file.size)} MB; ` +
          `a plan file has at most ${Math.floor(MOST_FILE_BYTES / 1_000_000)} MB.`,
      );
    begin(`${file.name} is read …`);
    await afterFrame();
    try {
      const plan: unknown = JSON.parse(await file.text());
      begin(`${file.name}, ${megabytes(file.size)} MB, is sent, checked and stored …`);
      await afterFrame();
      const { id, batch } = idsOf(file.name, file.size, file.lastModified, customer);
      await send(id, { by: "file", batch, file: plan, customer });
    } catch (error) {
      if (!(error instanceof SyntaxError || error instanceof DOMException)) throw error;
      refuse(`${file.name} ${error instanceof SyntaxError ? NO_JSON : UNREADABLE}`);
    }
    return undefined;
  };
  return { busy, refusal, faults, byName, byFile };
}
