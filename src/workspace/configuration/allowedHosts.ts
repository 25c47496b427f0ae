import { isUrl } from "../../core/rest/documentNames.js";
import type { ContractConfiguration } from "./configuration.js";

/** Returns whether the configuration allows a contract to refer to a document at this address. */
export function isAllowedHost(settings: ContractConfiguration, address: string): boolean {
  const { host, protocol } = new URL(address);
  if (!/^https?:$/.test(protocol)) return false;
  const own = urlsOf(settings).map((source) => new URL(source).host);
  return [...own, ...(settings.hosts ?? [])].includes(host);
}

function urlsOf({ from }: ContractConfiguration): string[] {
  const sources = typeof from === "string" ? [from] : "run" in from ? [] : from;
  return sources.filter((source) => isUrl(source) && URL.canParse(source));
}
