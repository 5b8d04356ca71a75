"use client";

import { clsx } from "clsx";
import Link from "next/link";
import { useState } from "react";
import { counted } from "@/core/repairs";
import type { BinnedAnswer, FoldersAnswer, SiteAnswer } from "@/http/contracts/answers";
import { Page } from "../../frame/Page";
import { Bin } from "./Bin";
import { DeleteSite } from "./DeleteSite";
import { hereText } from "./here-text";
import { NewSite } from "./NewSite";
import { SoundnessOf } from "./SoundnessOf";

const KINDS = { home: "Home", office: "Office", industrial: "Industrial site" } as const;
/** Above the drawings: every site with its sheets, a new one, and one from a plan file. */
// eslint-disable-next-line max-lines-per-function -- one page: the sites and what can be done with them
export function SitesView({
  person,
  sites,
  bin,
  folders,
}: {
  person: string;
  sites: readonly SiteAnswer[];
  bin: readonly BinnedAnswer[];
  folders: FoldersAnswer;
}) {
  const [deleting, setDeleting] = useState<SiteAnswer | null>(null);
  const mayBegin = folders.outside || folders.customers.length > 0;
  const hasFolders = sites.some(({ customer }) => customer !== null);
  return (
    <Page at="/" person={person}>
      <div className="head">
        <h1>Sites</h1>
        <p>{counted(sites.length, "site", "sites")}</p>
      </div>
      {sites.length === 0 ? (
        <p className="p-4 text-15">
          {mayBegin
            ? "No site yet. Below you begin one; a plan file that somebody gave you begins one, too."
            : "No site is open to you yet. Whoever invited you can give you a role on one."}
        </p>
      ) : (
        <div className="overflow-x-auto">
          <table className="table lead" aria-label="Sites">
            <thead>
              <tr>
                <th scope="col">Name</th>
                <th scope="col">Kind</th>
                {hasFolders ? <th scope="col">Customer</th> : null}
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
                      className={clsx(
                        "text-15 font-semibold underline decoration-rule underline-offset-4",
                        "hover:decoration-ink",
                      )}
                      href={`/sites/${site.id}/segments`}
                    >
                      {site.name}
                    </Link>
                  </td>
                  <td>{KINDS[site.kind]}</td>
                  {hasFolders ? <td>{site.customer ?? "–"}</td> : null}
                  <td className="mono right">{site.segments}</td>
                  <td className="mono right">{site.devices}</td>
                  <td className="mono right">{site.hosts}</td>
                  <td className="!pl-6">
                    <SoundnessOf site={site.id} revision={site.revision} />
                  </td>
                  <td className="mono right">{site.revision}</td>
                  <td className="!pl-6" suppressHydrationWarning>
                    {hereText(site.changedAt)}
                    {site.changedBy === null ? null : <span className="text-ink2">, {site.changedBy}</span>}
                  </td>
                  <td className="right">
                    <span className="flex justify-end gap-[6px]">
                      <Link className="button" href={`/sites/${site.id}/survey`}>
                        Settings
                      </Link>
                      {site.role === "owner" ? (
                        <button
                          type="button"
                          className="button"
                          aria-label={`Delete ${site.name}`}
                          onClick={() => setDeleting(site)}
                        >
                          Delete
                        </button>
                      ) : null}
                    </span>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {mayBegin ? <NewSite folders={folders} /> : null}
      <Bin sites={bin} />
      {deleting === null ? null : <DeleteSite site={deleting} close={() => setDeleting(null)} />}
    </Page>
  );
}
