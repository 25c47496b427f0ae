import { tideTable, type BerthsConnection } from "./sdk/berths/index.js";
import { windNow, type PassagesConnection } from "./sdk/passages/index.js";

export async function tideLines(berths: BerthsConnection, day: string): Promise<string[]> {
  const { tides, station } = await tideTable(berths, { day, unit: "metre" });
  return tides.map((tide) => `${tide.at}  ${tide.kind.padEnd(4)}  ${String(tide.level)} m  ${station ?? ""}`.trimEnd());
}

export async function windLine(passages: PassagesConnection): Promise<string[]> {
  const { weather } = await windNow(passages);
  return weather
    ? [`${String(weather.windSpeed ?? 0)} m/s from ${String(weather.windDirection)}`]
    : ["the mast is silent"];
}
