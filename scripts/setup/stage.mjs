// Progress with elapsed time, and the one kind of error that is meant for the reader.

/** A sentence for the person at the terminal: what is wrong and what to do. Printed without a stack. */
export class Problem extends Error {}

const seconds = (from) => `${((performance.now() - from) / 1000).toFixed(1)} s`;

export const say = (text = "") => process.stdout.write(`${text}\n`);

// Whoever read what is said here may be gone (a closed terminal, a pipe's other end): that is no reason to
// stop.
for (const stream of [process.stdout, process.stderr]) {
  stream.on("error", (error) => {
    if (!["EPIPE", "EIO", "ERR_STREAM_DESTROYED"].includes(error.code)) throw error;
  });
}

/** Runs one stage of the set-up and prints what it is, how long it has taken and how long it took. */
export async function stage(title, work) {
  const from = performance.now();
  const live = process.stdout.isTTY === true;
  process.stdout.write(`  ${title}${live ? "" : " ...\n"}`);
  const ticker = setInterval(
    () => {
      if (live) process.stdout.write(`\r  ${title}  ${seconds(from)}`);
      else process.stdout.write(`  ${title}: ${seconds(from)} so far\n`);
    },
    live ? 1000 : 15_000,
  );
  try {
    const result = await work();
    process.stdout.write(`${live ? "\r" : ""}  ${title}: done in ${seconds(from)}\n`);
    return result;
  } finally {
    clearInterval(ticker);
  }
}

/**
 * Runs `main`; a Problem is printed as its sentence, anything else as what it is, and the program ends with
 * 1.
 */
export async function runOrExplain(main) {
  try {
    await main();
  } catch (error) {
    if (error instanceof Problem) process.stderr.write(`\n${error.message}\n`);
    else process.stderr.write(`\n${error?.stack ?? error}\n`);
    process.exit(1);
  }
}
