import type { Service, Vid } from "../plan";
import type { Cause } from "./step";

/** What a port with sign-in has decided, with the words for it. */
export interface Decided {
  readonly says: string;
  readonly why: string;
}
type Open =
  | "signed in"
  | "by MAC address"
  | "with another"
  | "visitors"
  | "failed"
  | "server down"
  | "watched"
  | "not described";

/**
 * What a port with sign-in (IEEE 802.1X) does with what is plugged in. `vid` is the VLAN it is put into
 * instead of the port's own; `only` are the services that pass until somebody has signed in.
 */
export type PortState = Decided &
  (
    | { readonly state: Open; readonly vid: Vid | null }
    | Limited
    | { readonly state: "closed"; readonly vid: null; readonly cause: Cause }
  );
export type Closed = Extract<PortState, { readonly state: "closed" }>;

/** Not let in, at a port where some services pass all the same. */
export interface Limited extends Decided {
  readonly state: "limited";
  readonly vid: null;
  readonly only: readonly Service[];
  readonly cause: Cause;
  readonly port: string;
}
