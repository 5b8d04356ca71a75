/** Lets others have their turn: what takes long is done in slices with this between them. */
export const pause = (): Promise<void> =>
  new Promise((done) => {
    setImmediate(done);
  });

const SLICE_MS = 12;

/** A pause now and then: only when the last one is a while ago. */
export function pauseAfterAWhile(): () => Promise<void> | null {
  let since = performance.now();
  return () => {
    if (performance.now() - since < SLICE_MS) return null;
    return pause().then(() => {
      since = performance.now();
    });
  };
}
