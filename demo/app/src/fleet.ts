import { fleet, type FleetAnswerVessels, type PassagesConnection } from "./sdk/passages/index.js";

export async function fleetLines(passages: PassagesConnection): Promise<string[]> {
  const { vessels } = await fleet(passages);
  return vessels
    .slice(0, 3)
    .map((vessel) => `${vessel.name.padEnd(14)} ${vessel.callSign ?? "no call sign"}  ${detail(vessel)}`);
}

function detail(vessel: FleetAnswerVessels): string {
  switch (vessel.__typename) {
    case "SailBoat":
      return `mast ${String(vessel.mastHeight)} m`;
    case "MotorBoat":
      return `${String(vessel.enginePower)} kW ${vessel.fuel.toLowerCase()}`;
    case "WorkBoat":
      return "work boat";
  }
}
