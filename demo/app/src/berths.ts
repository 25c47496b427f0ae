import { isReserveBerthFailure, listBerths, reserveBerth } from "./sdk/berths/index.js";
import type { Berth, BerthStatus, BerthsConnection } from "./sdk/berths/index.js";

const marks: Record<BerthStatus, string> = { free: "( )", reserved: "(r)", occupied: "(x)", closed: "---" };

export async function berthLines(berths: BerthsConnection): Promise<string[]> {
  const { items, total } = await listBerths(berths, { status: ["free", "occupied"], pageSize: 4 });
  return [...items.map(berthLine), `${String(total ?? items.length)} berths in all`];
}

function berthLine(berth: Berth): string {
  const depth = berth.draught == null ? "not measured" : `${String(berth.draught)} m deep`;
  return `${marks[berth.status]} ${berth.id.padEnd(6)} ${String(berth.length).padStart(5)} m  ${depth}  ${berth.note ?? ""}`.trimEnd();
}

/** Reserves a berth for tonight, and returns the result in words. */
export async function reserveFirstFree(berths: BerthsConnection, day: string): Promise<string[]> {
  try {
    const reservation = await reserveBerth(berths, {
      berthId: "N-07",
      idempotencyKey: `board-${day}`,
      body: { vesselId: "v-12", arrival: day, departure: "2026-05-02", crew: 2 },
    });
    return [
      `reserved ${reservation.berthId} for ${reservation.vessel.name}: ${reservation.price.amount} ${reservation.price.currency}`,
    ];
  } catch (error) {
    if (!isReserveBerthFailure(error)) throw error;
    switch (error.status) {
      case 404:
        return ["there is no such berth"];
      case 409:
        return [`taken by ${error.body.conflictsWith}`];
      case 422:
        return [(error.body.errors ?? []).map((each) => each.message).join(", ")];
      default:
        return [`the desk does not respond: ${error.status}`];
    }
  }
}
