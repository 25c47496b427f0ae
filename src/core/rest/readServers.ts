import type { Server, ServerVariable } from "../contract/model.js";
import { dataMember, isData, listMember, member, textMember, type Data } from "../text/parseData.js";

/** Reads a list of servers (OpenAPI 3.1, section 4.8.5); what is no server object is passed over. */
export function readServers(owner: Data): Server[] {
  return (listMember(owner, "servers") ?? []).filter(isData).flatMap((server) => {
    const url = textMember(server, "url");
    if (url === undefined) return [];
    const variables = new Map<string, ServerVariable>();
    for (const [name, variable] of Object.entries(dataMember(server, "variables") ?? {})) {
      variables.set(name, readVariable(isData(variable) ? variable : {}));
    }
    const description = textMember(server, "description") ?? textMember(server, "name");
    return [{ url, variables, ...(description === undefined ? {} : { description }) }];
  });
}

function readVariable(node: Data): ServerVariable {
  const fallback = member(node, "default");
  const values = (listMember(node, "enum") ?? []).filter((each): each is string => typeof each === "string");
  const description = textMember(node, "description");
  return {
    default:
      typeof fallback === "string" ? fallback : typeof fallback === "number" ? String(fallback) : (values[0] ?? ""),
    ...(values.length > 0 ? { values } : {}),
    ...(description === undefined ? {} : { description }),
  };
}

/** The one server that `schemes`, `host` and `basePath` describe (OpenAPI 2.0); none when no host is said. */
export function readHost(root: Data): Server[] {
  const host = textMember(root, "host");
  const basePath = (textMember(root, "basePath") ?? "").replace(/\/+$/, "");
  if (host === undefined || host === "") return basePath === "" ? [] : [{ url: basePath, variables: new Map() }];
  const schemes = (listMember(root, "schemes") ?? []).filter((each) => each === "https" || each === "http");
  const ordered =
    schemes.length === 0 ? ["https"] : [...schemes].sort((a, b) => (a === b ? 0 : a === "https" ? -1 : 1));
  return ordered.map((scheme) => ({ url: `${scheme}://${host}${basePath}`, variables: new Map() }));
}
