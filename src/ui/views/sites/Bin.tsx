"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import type { BinnedAnswer } from "@/http/contracts/answers";
import { Modal } from "../../kit/Modal";
import { call } from "../../plan-store/api";
import { hereText } from "./here-text";

type Does = "bringBack" | "forget";
const SAYS: Readonly<Record<Does, string>> = {
  bringBack: "is back, as it was.",
  forget: "is gone for good.",
};

/** The deleted sites that can still be brought back; nothing where there are none. */
export function Bin({ sites }: { sites: readonly BinnedAnswer[] }) {
  const router = useRouter();
  const [forgetting, setForgetting] = useState<BinnedAnswer | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);
  const ask = async (does: Does, { id, name }: BinnedAnswer) => {
    const answer = await call("/api/bin", "POST", { site: id, do: does });
    setRefusal(answer.ok ? null : answer.refused.sentence);
    setForgetting(null);
    if (answer.ok) toast(`${name} ${SAYS[does]}`);
    router.refresh();
  };
  if (sites.length === 0 && refusal === null) return null;
  return (
    <section aria-label="Bin" className="border-t border-ink px-4 py-3 text-13">
      <h2 className="text-15">Bin</h2>
      <p className="text-ink2">
        What was deleted lies here for 30 days, with its history, record and photos.
      </p>
      {refusal === null ? null : (
        <p role="alert" className="pt-2 text-stop">
          {refusal}
        </p>
      )}
      <ul className="pt-2">
        {sites.map((site) => (
          <Binned
            key={site.id}
            site={site}
            onBringBack={() => void ask("bringBack", site)}
            onForget={() => setForgetting(site)}
          />
        ))}
      </ul>
      {forgetting === null ? null : (
        <Modal
          open
          onOpenChange={() => setForgetting(null)}
          title={`Delete ${forgetting.name} for good?`}
          description={
            "The plan goes with its whole history, its record and photos; nobody can bring it back. " +
            "What somebody still has waiting for it can't be sent any more."
          }
        >
          <button type="button" className="button danger tall" onClick={() => void ask("forget", forgetting)}>
            Delete {forgetting.name} for good
          </button>
        </Modal>
      )}
    </section>
  );
}

function Binned({
  site: { name, deletedAt, deletedBy, endsAt },
  onBringBack,
  onForget,
}: {
  site: BinnedAnswer;
  onBringBack: () => void;
  onForget: () => void;
}) {
  return (
    <li className="flex flex-wrap items-center gap-2 border-t border-hair py-2">
      <span className="min-w-[14rem] flex-1 [overflow-wrap:anywhere]">
        <b className="font-semibold">{name}</b>{" "}
        <span className="text-ink2" suppressHydrationWarning>
          deleted by {deletedBy}, {hereText(deletedAt)}; until {hereText(endsAt)}
        </span>
      </span>
      <button type="button" className="button" aria-label={`Bring back ${name}`} onClick={onBringBack}>
        Bring back
      </button>
      <button type="button" className="button" aria-label={`Delete ${name} for good`} onClick={onForget}>
        Delete for good …
      </button>
    </li>
  );
}
