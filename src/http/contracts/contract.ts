import { z } from "zod";
import type { Breath } from "@/core/formats";
import { UUID } from "@/core/plan";

/** Why a part of a request does not fit: where, and the issue of its schema. */
export interface Misfit {
  readonly issue: z.core.$ZodIssue;
  readonly path: readonly PropertyKey[];
}
/** A body that is read in slices, since it may be large; `breath` is asked between them. */
export interface SlicedBody<B> {
  readonly read: (value: unknown, breath: Breath) => Promise<{ readonly value: B } | Misfit>;
}

/**
 * What a route takes: the parts of its address, its query, its body and how large that may be (0: it has
 * none).
 */
export interface Contract<P, Q, B> {
  readonly params: z.ZodType<P>;
  readonly query: z.ZodType<Q>;
  readonly body: z.ZodType<B> | SlicedBody<B>;
  readonly maxBytes: number;
}

/** Keeps the types of a contract's parts. */
export const contract = <P, Q, B>(value: Contract<P, Q, B>): Contract<P, Q, B> => value;
/** What a contract's body is once it is read. */
export type BodyOf<C> = C extends { body: z.ZodType<infer B> | SlicedBody<infer B> } ? B : never;

export const nothing = z.strictObject({});
export const noBody = z.null();
export const idText = z.string().regex(UUID, "An id is a UUID in lower case");
export const siteParams = z.strictObject({ site: idText });
