import type { StatusReading } from "../sdk/lower/reading.js";
import type { Reference } from "../contract/model.js";
import type { PlannedResponse } from "../sdk/sdkPlan.js";

/** The reply of a fake connection in place of a server: a status and a body. */
export type FakeReply =
  | { readonly kind: "nothing"; readonly status: string }
  | { readonly kind: "bytes"; readonly status: string; readonly mediaType: string }
  | {
      readonly kind: "text" | "json";
      readonly status: string;
      readonly mediaType: string;
      readonly type: Reference;
    }
  | {
      readonly kind: "items";
      readonly status: string;
      readonly mediaType: string;
      readonly type: Reference;
      /** How the items are separated in the stream. */
      readonly as: string;
    };

/**
 * Returns the reply for a response of the contract.
 *
 * @param reading how the call reads it; absent if it is not read
 * @param otherwise the status for `default`
 */
export function fakeReply(
  { status: said, type, mediaType: declared }: PlannedResponse,
  reading: StatusReading | undefined,
  otherwise = 200,
): FakeReply {
  const status = said === "default" ? String(otherwise) : said.replace(/XX$/i, "00");
  const media = (usual: string): string => (declared === undefined || declared.includes("*") ? usual : declared);
  const as = reading?.as ?? "none";
  if (as === "bytes") return { kind: "bytes", status, mediaType: media("application/octet-stream") };
  if (as === "none" || !type) return { kind: "nothing", status };
  if (as === "text") return { kind: "text", status, mediaType: media("text/plain"), type };
  if (as === "json") return { kind: "json", status, mediaType: media("application/json"), type };
  return { kind: "items", status, mediaType: media("text/event-stream"), type, as };
}

/** A possible reply to a call. */
interface PossibleReply {
  /** Whether it has a body, and whether that may be null. */
  readonly has: boolean;
  readonly isNullable: boolean;
}

/** How the reply is chosen for the value in a test. */
export type WayToReply<Reply> =
  /** By the case of the value. */
  | { readonly kind: "cases" }
  /** The items of one case are sent: one response has one status, and items of one type. */
  | { readonly kind: "items"; readonly reply: Reply }
  /** There is no body. If `reply` is absent, the call has no reply of its own. */
  | { readonly kind: "nothing"; readonly reply: Reply | undefined }
  /** The value is sent. For null, the status that allows null is used. */
  | { readonly kind: "one"; readonly reply: Reply; readonly ofNull: Reply | undefined };

/**
 * Returns how the reply is chosen.
 *
 * @param isSeveral whether the responses of the call have no type in common
 * @param admitsNull whether the value may be null
 */
export function wayToReply<Reply extends PossibleReply>(
  replies: readonly Reply[],
  {
    isSeveral,
    isStream,
    admitsNull,
  }: { readonly isSeveral: boolean; readonly isStream: boolean; readonly admitsNull: boolean },
): WayToReply<Reply> {
  if (isSeveral && !isStream) return { kind: "cases" };
  const withBody = replies.find(({ has }) => has);
  if (!withBody) return { kind: "nothing", reply: replies[0] };
  if (isSeveral) return { kind: "items", reply: withBody };
  const forNull = withBody.isNullable ? undefined : replies.find(({ isNullable }) => isNullable);
  const ofNull = replies.find(({ has }) => !has) ?? forNull;
  return { kind: "one", reply: withBody, ofNull: admitsNull ? ofNull : undefined };
}
