/** The last work of each site that was asked for here, once it is over. */
const LAST = new Map<string, Promise<void>>();

/**
 * Does what changes a site one after another, as its lock would have it anyway: whoever waits here holds no
 * connection to the database meanwhile, so that those who read are not kept waiting. What fails holds up
 * nobody.
 */
export function inTurn<T>(site: string, work: () => Promise<T>): Promise<T> {
  const own = (LAST.get(site) ?? Promise.resolve()).then(work);
  const over: Promise<void> = own
    .then(
      () => {},
      () => {},
    )
    .then(() => {
      if (LAST.get(site) === over) LAST.delete(site);
    });
  LAST.set(site, over);
  return own;
}
