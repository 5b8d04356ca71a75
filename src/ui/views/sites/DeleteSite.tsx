"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import type { SiteAnswer } from "@/http/contracts/answers";
import { Modal } from "../../kit/Modal";
import { call } from "../../plan-store/api";

/** A deleted site is gone for everybody until somebody brings it back: the name has to be typed. */
export function DeleteSite({ site, close }: { site: SiteAnswer; close: () => void }) {
  const router = useRouter();
  const [typed, setTyped] = useState("");
  const [refusal, setRefusal] = useState<string | null>(null);
  const remove = async () => {
    if (typed.trim() !== site.name) return setRefusal(`To delete it, type its name exactly: ${site.name}`);
    const answer = await call(`/api/sites/${site.id}`, "DELETE");
    if (!answer.ok) return setRefusal(answer.refused.sentence);
    toast(`${site.name} is deleted. It lies in the bin for 30 days.`);
    close();
    router.refresh();
  };
  return (
    <Modal
      open
      onOpenChange={close}
      title={`Delete ${site.name}?`}
      description={
        "It goes for everybody, and lies in the bin for 30 days with its history, record and photos. " +
        "Until then it can be brought back from there; then it is gone for good."
      }
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void remove();
        }}
      >
        <label className="mb-1 block text-13" htmlFor="delete-name">
          Type the site’s name
        </label>
        <input
          id="delete-name"
          className="field mb-3 w-full"
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value);
            setRefusal(null);
          }}
          autoComplete="off"
        />
        {refusal === null ? null : (
          <p role="alert" className="mb-3 text-13 text-stop">
            {refusal}
          </p>
        )}
        <button type="submit" className="button danger">
          Delete the site
        </button>
      </form>
    </Modal>
  );
}
