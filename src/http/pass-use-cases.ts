import "server-only";
import { NO_SUCH_EXPORT, NO_SUCH_SHEET, type AppError } from "@/application/errors";
import { fetchExport, listExports, noteExport, type Fetcher } from "@/application/exports";
import { openHanded, type Handed, type NotHanded } from "@/application/handed";
import { makePass, withdrawLink } from "@/application/passes";
import { wholeRecord } from "@/application/records";
import type { Person } from "@/application/stores";
import { paperMaker, stores } from "@/composition";
import { err, ok, type Result } from "@/core/kernel";
import { READER_WORDS } from "@/core/pack";
import { issuedSheets } from "@/core/records";
import { fromOf } from "./authorise";
import type { LinksAnswer } from "./contracts/answers";
import type { BodyOf } from "./contracts/contract";
import { exportText } from "./contracts/csv-text";
import { dueCalendar } from "./contracts/due-calendar";
import { calendarOf } from "./contracts/windows-calendar";
import type { linksContract } from "./contracts/pass-contracts";
import type { Reply } from "./route";

// What leaves by passes and exports, between the routes and the use cases.

type Answer = Promise<Result<Reply, AppError>>;
interface OfSite {
  readonly params: { readonly site: string };
  readonly person: Person;
}

/** The links of a site, the newest first. */
export const readLinks = async ({ params }: OfSite): Answer =>
  ok({ value: (await stores().passes.passes("sheet", params.site)) satisfies LinksAnswer });

type LinksBody = BodyOf<typeof linksContract>;
async function makeLink(
  site: string,
  person: Person,
  body: Extract<LinksBody, { do: "make" }>,
): Promise<Result<{ readonly key: string }, AppError>> {
  const { issue, reader, title, lastDay } = body;
  const sheet = issuedSheets(await wholeRecord(stores().records, site)).find(
    (issuedSheet) => issuedSheet.issue.id === issue && !issuedSheet.isWithdrawn,
  );
  if (sheet === undefined) return err(NO_SUCH_SHEET);
  const about = `${title}: ${sheet.letter} ${sheet.issue.sheet.name}, ${READER_WORDS[reader]}`;
  return makePass(stores(), person, {
    ...{ title, lastDay, now: Date.now() },
    opens: { kind: "sheet", site, issue, reader },
    deed: { what: "link-made", about, site },
  });
}

/** Makes a link to an issued sheet, or ends one. */
export async function changeLinks({ params, person, body }: OfSite & { body: LinksBody }): Answer {
  const { site } = params;
  const done =
    body.do === "make"
      ? await makeLink(site, person, body)
      : await withdrawLink(stores(), person, { site, id: body.id });
  return done.ok ? ok({ value: done.value ?? {} }) : done;
}

/** For the page of a link: one part of the papers, or why there is none. */
export async function handedFor(
  key: string,
  part: string | null,
  headers: Headers,
): Promise<Handed | NotHanded> {
  const { address } = await fromOf(headers);
  return openHanded(stores(), { key, part, cameFrom: address, made: new Date().toISOString() });
}

const exportDoor = () => ({
  ...stores(),
  calendars: { due: dueCalendar, windows: calendarOf },
  papers: paperMaker,
});

export const listSiteExports = async ({ params }: { params: { site: string } }): Answer => {
  const listed = await listExports(exportDoor(), params.site);
  return listed.ok ? ok({ value: listed.value }) : listed;
};

/** A file of the site as it is now, as a file to keep. */
export async function readExport(asked: {
  params: { site: string; file: string };
  fetcher: Fetcher;
}): Answer {
  const { params, fetcher } = asked;
  const found = await fetchExport(exportDoor(), fetcher, { ...params, made: new Date().toISOString() });
  if (!found.ok) return found;
  const { content } = found.value;
  const file = content.is === "bytes" ? content.bytes : exportText(content);
  if (typeof file === "object" && "refusal" in file)
    return err({ ...NO_SUCH_EXPORT, sentence: file.refusal });
  const headers = {
    "content-type": found.value.type,
    "content-disposition": `attachment; filename*=UTF-8''${encodeURIComponent(params.file)}`,
  };
  return ok({
    value: null,
    ready: { bytes: typeof file === "string" ? new TextEncoder().encode(file) : file, headers },
  });
}

/** Somebody saved a file that their browser made. */
export async function noteSaved({ params, person, body }: OfSite & { body: { file: string } }): Answer {
  await noteExport(stores().deeds, person, { site: params.site, file: body.file });
  return ok({ value: {} });
}
