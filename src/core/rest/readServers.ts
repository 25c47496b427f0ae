import type { Server, ServerVariable } from "../contract/model.js";
import { publicAddress } from "../text/secrets.js";
import { dataMember, isData, listMember, member, textMember, type Data } from "../text/parseData.js";

/**
 * Reads a list of servers (OpenAPI 3.1, section 4.8.5). Values that are not server objects are ignored. A credential in
 * an address is left out, because readers of the contract do not own it.
 *
 * @param owner an object with a `servers` member
 */
export function readServers(owner: Data): Server[] {
  return (listMember(owner, "servers") ?? []).filter(isData).flatMap((server) => {
    const written = textMember(server, "url");
    if (written === undefined) return [];
    const url = publicAddress(written);
    const variables = new Map<string, ServerVariable>();
    for (const [name, variable] of Object.entries(dataMember(server, "variables") ?? {})) {
      if (url === written || url.includes(`{${name}}`))
        variables.set(name, readVariable(isData(variable) ? variable : {}));
    }
    const description = textMember(server, "description") ?? textMember(server, "name");
    return [{ url, variables, ...(description === undefined ? {} : { description }) }];
  });
}

/** Returns server objects with only the members that `readServers` reads, for a pin. */
export function pinnedServers(owner: Data): Data[] {
  return readServers(owner).map(({ url, variables }) => ({
    url,
    ...(variables.size === 0
      ? {}
      : {
          variables: Object.fromEntries(
            [...variables].map(([name, { default: fallback, values }]) => [
              name,
              { default: fallback, ...(values ? { enum: [...values] } : {}) },
            ]),
          ),
        }),
  }));
}

/** Removes a credential from a value for a part of an address, which may stand before a host. */
export function withoutUserInfo(value: string): string {
  return value.replace(/^[^/?#]*@/, "");
}

function readVariable(node: Data): ServerVariable {
  const given = member(node, "default");
  const fallback = typeof given === "string" ? withoutUserInfo(given) : given;
  const values = (listMember(node, "enum") ?? [])
    .filter((each): each is string => typeof each === "string")
    .map(withoutUserInfo);
  const description = textMember(node, "description");
  return {
    default:
      typeof fallback === "string" ? fallback : typeof fallback === "number" ? String(fallback) : (values[0] ?? ""),
    ...(values.length > 0 ? { values } : {}),
    ...(description === undefined ? {} : { description }),
  };
}

/** Returns the server from `schemes`, `host` and `basePath` (OpenAPI 2.0); an empty list without a host. */
export function readHost(root: Data): Server[] {
  const written = textMember(root, "host");
  const host = written === undefined ? undefined : withoutUserInfo(written);
  const basePath = (textMember(root, "basePath") ?? "").replace(/\/+$/, "");
  if (host === undefined || host === "") return basePath === "" ? [] : [{ url: basePath, variables: new Map() }];
  const schemes = (listMember(root, "schemes") ?? []).filter((each) => each === "https" || each === "http");
  const ordered =
    schemes.length === 0 ? ["https"] : [...schemes].sort((a, b) => (a === b ? 0 : a === "https" ? -1 : 1));
  return ordered.map((scheme) => ({ url: `${scheme}://${host}${basePath}`, variables: new Map() }));
}
