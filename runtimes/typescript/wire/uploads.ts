import type { GraphqlPayload } from "./graphql.js";

/**
 * A request whose variables contain files, as a multipart form: the request with null in place of the files, a map from
 * parts to places, then the files (the community's specification for GraphQL multipart requests). Undefined if there
 * are no files.
 */
export function uploads(payload: GraphqlPayload, stringify: (value: unknown) => string): FormData | undefined {
  const files = new Map<Blob, string[]>();
  const variables = withoutFiles(payload.variables, "variables", files);
  if (files.size === 0) return undefined;
  const form = new FormData();
  form.append("operations", stringify({ ...payload, variables }));
  form.append("map", JSON.stringify(Object.fromEntries([...files.values()].map((paths, at) => [String(at), paths]))));
  [...files.keys()].forEach((file, at) => {
    form.append(String(at), file);
  });
  return form;
}

function withoutFiles(value: unknown, path: string, files: Map<Blob, string[]>): unknown {
  if (value instanceof Blob) {
    const known = files.get(value);
    if (known) known.push(path);
    else files.set(value, [path]);
    return null;
  }
  if (Array.isArray(value)) return value.map((item, at) => withoutFiles(item, `${path}.${String(at)}`, files));
  if (typeof value !== "object" || value === null || Object.getPrototypeOf(value) !== Object.prototype) return value;
  return Object.fromEntries(
    Object.entries(value).map(([name, item]) => [name, withoutFiles(item, `${path}.${name}`, files)]),
  );
}
