/**
 * Every way in which a request is refused: its status and, where no use case has made a better one, its
 * sentence.
 */
export const ERRORS = {
  "bad-file": { status: 422, text: "The file is not a plan file." },
  "bad-code": { status: 403, text: "That code is not right, or was used already." },
  "bad-end": { status: 422, text: "The last day has to be today or later, and no more than a year away." },
  "bad-link": {
    status: 403,
    text:
      "This link has been used, is older than a day or is not complete. Whoever gave it to you can make " +
      "another.",
  },
  "bad-passkey": { status: 403, text: "That passkey is not known here." },
  "bad-request": { status: 400, text: "The request does not have the form that belongs here." },
  "broken-plan": { status: 422, text: "The change would break the plan." },
  clash: { status: 409, text: "Somebody has changed the same since." },
  "code-wanted": { status: 403, text: "Type the six digits that your second factor shows now." },
  "database-full": {
    status: 507,
    text: "The disk of the database is full. Nothing was written; free some space.",
  },
  "database-unreachable": {
    status: 503,
    text: "The database does not answer just now. Nothing was lost; it is tried again.",
  },
  "device-not-read": { status: 422, text: "The device could not be read." },
  "in-bin": { status: 409, text: "This site was deleted and lies in the bin." },
  "last-owner": { status: 409, text: "Nobody else owns everything here." },
  "name-taken": { status: 409, text: "Somebody has that name here." },
  "no-factor": { status: 409, text: "This account has no second factor." },
  "no-photo": { status: 422, text: "That is no photo." },
  "no-session": {
    status: 401,
    text: "You are not signed in.",
  },
  "no-stand-ins": { status: 409, text: "No stand-in devices run here. The demo starts them: bin/demo." },
  "not-allowed": { status: 403, text: "Your role does not allow that." },
  "not-empty": { status: 409, text: "Sites still lie in this folder." },
  "not-in-bin": { status: 404, text: "It is not in the bin any more." },
  "not-listening": { status: 404, text: "It listens on this machine only, without a certificate." },
  "no-such-export": { status: 404, text: "There is no file of that name." },
  "no-such-place": { status: 404, text: "It is not there any more." },
  "no-such-photo": { status: 404, text: "There is no such photo." },
  "no-such-sheet": { status: 404, text: "No such sheet was issued." },
  "no-such-site": { status: 404, text: "There is no such site." },
  "nothing-to-undo": { status: 409, text: "There is nothing to undo." },
  "passes-full": { status: 409, text: "Too many links and tokens are open already." },
  "photos-full": { status: 409, text: "The site has all the photos that it can have." },
  "record-full": { status: 409, text: "The record of this site is full." },
  "revision-ahead": { status: 409, text: "The plan is older than the change. Load it again." },
  "sign-in-first": { status: 409, text: "This link wants an account." },
  "stale-revision": { status: 409, text: "The plan has changed since you opened it." },
  "too-large": { status: 413, text: "That is larger than this takes." },
  "too-many-tries": { status: 429, text: "Too many tries went wrong. Wait, then try again." },
  "wrong-host": {
    status: 421,
    text: "The application is not known under this name. Use the address that the start command printed.",
  },
  "wrong-method": { status: 405, text: "Only GET, HEAD, POST, DELETE are taken here." },
  "wrong-origin": { status: 403, text: "The request came from another site's page and was refused." },
  "wrong-sign-in": { status: 403, text: "The name or the password is not right." },
} as const satisfies Record<string, { status: number; text: string }>;

export type ErrorCode = keyof typeof ERRORS;
