import type { StatusReading } from "../sdk/lower/reading.js";
import type { Reference } from "../contract/model.js";
import type { PlannedResponse } from "../sdk/sdkPlan.js";

/** What a fake connection replies with in place of a server: a status, and what is sent with it. */
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
      /** How the items stand in the stream. */
      readonly as: string;
    };

/**
 * What stands for a response of the contract.
 *
 * @param reading how the call reads it; nothing of it is read when absent
 * @param otherwise the status that stands for all others
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

/** A reply that a call may have. */
interface PossibleReply {
  /** Something is sent with it, and that may be null. */
  readonly has: boolean;
  readonly isNullable: boolean;
}

/** How the reply is found to what a test gives. */
export type WayToReply<Reply> =
  /** By the case of what is given. */
  | { readonly kind: "cases" }
  /** The items of one case are sent: one answer has one status, and with it items of one kind. */
  | { readonly kind: "items"; readonly reply: Reply }
  /** Nothing is sent; the call has no reply of its own when absent. */
  | { readonly kind: "nothing"; readonly reply: Reply | undefined }
  /** What is given is sent; what is null is answered with the status that admits it. */
  | { readonly kind: "one"; readonly reply: Reply; readonly ofNull: Reply | undefined };

/**
 * @param isSeveral whether the answers of the call have no type in common
 * @param admitsNull whether null may be given
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
