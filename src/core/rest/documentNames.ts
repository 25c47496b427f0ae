/** A scheme such as `https:`. A single letter would be a drive. */
const hasScheme = /^[a-z][a-z0-9+.-]+:/i;

/**
 * Resolves the document of a reference (RFC 3986, section 5.2): an absolute URL, or a path relative to the project with
 * slashes. A path that leads out of the project keeps its leading `..`.
 *
 * @param reference a URL or a path, without its fragment
 * @param base the referring document, a URL or a path
 */
export function documentNamed(reference: string, base: string): string {
  if (reference === "") return base;
  if (hasScheme.test(reference) || hasScheme.test(base)) {
    try {
      const url = new URL(reference, hasScheme.test(base) ? base : undefined);
      url.hash = "";
      return url.href;
    } catch {
      return reference;
    }
  }
  const path = decoded(reference).replaceAll("\\", "/");
  if (path.startsWith("/")) return path;
  const parts = base.split("/").slice(0, -1);
  for (const part of path.split("/")) {
    if (part === "" || part === ".") continue;
    if (part === ".." && parts.length > 0 && parts.at(-1) !== "..") parts.pop();
    else parts.push(part);
  }
  return parts.join("/");
}

/** Returns whether a document's name is a URL and not a path of the project. */
export function isUrl(document: string): boolean {
  return hasScheme.test(document);
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}
