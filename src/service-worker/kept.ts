/** The caches, by what is in them; that of the files has the build's mark behind its name. */
export const CACHES = { files: "dianome-files", pages: "dianome-pages", plans: "dianome-plans" } as const;

/** A page of a site: /sites/ID or /sites/ID/VIEW. */
export const isSitePage = (path: string): boolean => /^\/sites\/[0-9a-f-]{36}(\/[a-z]+)?$/.test(path);

/** The plan of a site as the server sends it. */
export const isPlan = (path: string): boolean => /^\/api\/sites\/[0-9a-f-]{36}\/plan$/.test(path);

/** What is kept of every site that was open here, whichever page of it that was. */
export const runbookPageOf = (site: string): string => `/sites/${site}/runbook`;
export const planOf = (site: string): string => `/api/sites/${site}/plan`;

/** What the server really answered; a refusal or a redirect to the door is not kept. */
export const isKept = ({ status, redirected }: Pick<Response, "status" | "redirected">): boolean =>
  status === 200 && !redirected;
