import { arrivalsToday, isArrivalsTodayFailure, voyageDetails } from "./sdk/passages/index.js";
import type { PassagesConnection, VoyageDetailsAnswerVoyageCargo, VoyageLinePart } from "./sdk/passages/index.js";

export async function arrivalsLines(passages: PassagesConnection, day: string): Promise<string[]> {
  try {
    const { voyages } = await arrivalsToday(passages, { day, first: 3 });
    const lines = voyages.edges.map(({ node }) => `${voyageLine(node)}  from ${node.from.name}`);
    const [first] = voyages.edges;
    if (first) lines.push(...(await detailLines(passages, first.node.id)));
    return lines;
  } catch (error) {
    if (isArrivalsTodayFailure(error)) return [`no arrivals: ${error.status}`];
    throw error;
  }
}

function voyageLine({ vessel, status, eta, berth }: VoyageLinePart): string {
  return `${vessel.name.padEnd(14)} ${status.padEnd(10)} ${eta ?? "no report yet"}  ${berth ?? "-"}`;
}

async function detailLines(passages: PassagesConnection, id: string): Promise<string[]> {
  const { voyage } = await voyageDetails(passages, { id, withLog: true });
  if (!voyage) return [];
  const crew = voyage.crew.map((member) => `${member.name} (${member.role.toLowerCase()})`);
  return [
    `  crew: ${crew.join(", ")}`,
    `  cargo: ${voyage.cargo.map(cargoText).join(", ")}`,
    `  remarks: ${voyage.remarks ?? "none"}`,
  ];
}

function cargoText(cargo: VoyageDetailsAnswerVoyageCargo): string {
  switch (cargo.__typename) {
    case "Fish":
      return `${cargo.species} ${String(cargo.weight)} kg`;
    case "Timber":
      return `${cargo.kind} ${String(cargo.volume)} m3`;
    case "Passengers":
      return `${String(cargo.count)} people`;
  }
}
