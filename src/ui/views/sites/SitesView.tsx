"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { Toaster, toast } from "sonner";
import { counted } from "@/core/repairs";
import type { SiteAnswer } from "@/http/contracts/answers";
import { GroundSwitch } from "../../frame/GroundSwitch";
import { Modal } from "../../kit/Modal";
import { Brand } from "../../kit/signs";
import { call } from "../../plan-store/api";
import { NewSite } from "./NewSite";
import { SoundnessOf } from "./SoundnessOf";

const KINDS = { home: "Home", office: "Office", industrial: "Industrial site" } as const;
const whenText = (instant: string) =>
  new Intl.DateTimeFormat("en-GB", {
    day: "numeric",
    month: "short",
    year: "numeric",
    hour: "2-digit",
    minute: "2-digit",
  }).format(new Date(instant));

/** Above the drawings: every site with its sheets, a new one, and one from a plan file. */
// eslint-disable-next-line max-lines-per-function -- one page: the sites and what can be done with them
export function SitesView({ person, sites }: { person: string; sites: readonly SiteAnswer[] }) {
  const [deleting, setDeleting] = useState<SiteAnswer | null>(null);
  return (
    <div className="flex min-h-screen flex-col">
      <header className="flex h-11 items-center gap-4 border-b border-ink px-4">
        <span className="flex items-center gap-[10px] text-[16px] font-bold">
          <Brand />
          Dianome
        </span>
        <span className="ml-auto text-13 font-semibold">{person}</span>
        <GroundSwitch />
      </header>
      <main className="mx-auto w-full max-w-[1080px] flex-1 border-x border-hair bg-panel">
        <div className="head">
          <h1>Sites</h1>
          <p>{counted(sites.length, "site", "sites")}</p>
        </div>
        {sites.length === 0 ? (
          <p className="p-4 text-15">
            No site yet. Below you begin one; a plan file that somebody gave you begins one, too.
          </p>
        ) : (
          <div className="overflow-x-auto">
            <table className="table lead" aria-label="Sites">
              <thead>
                <tr>
                  <th scope="col">Name</th>
                  <th scope="col">Kind</th>
                  <th scope="col" className="right">
                    Segments
                  </th>
                  <th scope="col" className="right">
                    Gear
                  </th>
                  <th scope="col" className="right">
                    End devices
                  </th>
                  <th scope="col" className="!pl-6">
                    Found wrong
                  </th>
                  <th scope="col" className="right">
                    Revision
                  </th>
                  <th scope="col" className="!pl-6">
                    Last changed
                  </th>
                  <th scope="col">
                    <span className="sr-only">What to do</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {sites.map((site) => (
                  <tr key={site.id}>
                    <td className="!h-10">
                      <Link
                        className="text-15 font-semibold underline decoration-rule underline-offset-4 hover:decoration-ink"
                        href={`/sites/${site.id}/segments`}
                      >
                        {site.name}
                      </Link>
                    </td>
                    <td>{KINDS[site.kind]}</td>
                    <td className="mono right">{site.segments}</td>
                    <td className="mono right">{site.devices}</td>
                    <td className="mono right">{site.hosts}</td>
                    <td className="!pl-6">
                      <SoundnessOf site={site.id} revision={site.revision} />
                    </td>
                    <td className="mono right">{site.revision}</td>
                    <td className="!pl-6" suppressHydrationWarning>
                      {whenText(site.changedAt)}
                      {site.changedBy === null ? null : <span className="text-ink2">, {site.changedBy}</span>}
                    </td>
                    <td className="right">
                      <span className="flex justify-end gap-[6px]">
                        <Link className="button" href={`/sites/${site.id}/survey`}>
                          Settings
                        </Link>
                        <button
                          type="button"
                          className="button"
                          aria-label={`Delete ${site.name}`}
                          onClick={() => setDeleting(site)}
                        >
                          Delete
                        </button>
                      </span>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        )}
        <NewSite />
      </main>
      {deleting === null ? null : <DeleteSite site={deleting} close={() => setDeleting(null)} />}
      <Toaster position="bottom-left" />
    </div>
  );
}

/** Deleting takes the history with it and can't be undone: the name has to be typed. */
function DeleteSite({ site, close }: { site: SiteAnswer; close: () => void }) {
  const router = useRouter();
  const [typed, setTyped] = useState("");
  const [refusal, setRefusal] = useState<string | null>(null);
  const remove = async () => {
    if (typed.trim() !== site.name) return setRefusal(`To delete it, type its name exactly: ${site.name}`);
    const answer = await call(`/api/sites/${site.id}`, "DELETE");
    if (!answer.ok) return setRefusal(answer.refused.sentence);
    toast(`${site.name} is deleted.`);
    close();
    router.refresh();
  };
  return (
    <Modal
      open
      onOpenChange={close}
      title={`Delete ${site.name}?`}
      description={
        "The plan goes with its whole history; this can't be undone. " +
        "Save the plan file first (Hand-over, Open formats) if anybody may still need it."
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
