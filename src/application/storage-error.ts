/** What the store may refuse for reasons that lie outside the plan, as a closed set. */
export type StorageFault = "duplicate" | "lock-conflict" | "unreachable" | "no-space";

export class StorageError extends Error {
  readonly fault: StorageFault;
  constructor(fault: StorageFault, cause: unknown) {
    super(`storage: ${fault}`, { cause });
    this.fault = fault;
  }
}
