import { posix } from "node:path";
import type { ErrorObject, ValidateFunction } from "ajv";
import validateConfiguration from "rhema:configuration-validator";
import { changeMeanings, isChangeCode } from "../../core/change/changeCodes.js";
import { atKey, below, pointerPlace, pointerTokens, type PointerPlace } from "../../core/problem/place.js";
import { sharedSettings } from "../../core/languages/settings.js";
import { hideSecrets, isSecretName } from "../../core/text/secrets.js";
import { visible } from "../../core/text/visible.js";
import { problem, type Problem } from "../../core/problem/problem.js";
import { isUrl } from "../../core/rest/documentNames.js";
import { didYouMean } from "../../core/text/nearest.js";
import type { Configuration } from "./configuration.js";

/**
 * Returns all problems of a configuration: violations of the schema, names that do not exist, and what this version
 * does not support.
 *
 * @param data the parsed configuration
 * @param document its name in messages
 * @param validate validates it against the schema. Default: compiled with all languages
 */
export function checkConfiguration(
  data: unknown,
  document: string,
  validate: ValidateFunction = validateConfiguration,
): Problem[] {
  if (!validate(data)) return schemaProblems(validate.errors ?? [], document);
  return [...crossChecks(data as Configuration, document), ...secrets(data as Configuration, document)];
}

function schemaProblems(errors: readonly ErrorObject[], document: string): Problem[] {
  const problems: Problem[] = [];
  const seen = new Set<string>();
  for (const error of errors) {
    // Every alternative of `from` has an error of its own. The summary of all of them is the useful one.
    if (error.schemaPath.includes("/anyOf/") || ["propertyNames", "if"].includes(error.keyword)) continue;
    const found = schemaProblem(error, document);
    const key = JSON.stringify([found.message, found.places]);
    if (!seen.has(key)) problems.push(found);
    seen.add(key);
  }
  return problems;
}

function schemaProblem(error: ErrorObject, document: string): Problem {
  const place = pointerPlace(document, error.instancePath);
  const key = pointerTokens(error.instancePath).pop() ?? "the configuration";
  const details = (at: PointerPlace, hint?: string) => ({ place: at, ...(hint === undefined ? {} : { hint }) });
  switch (error.keyword) {
    case "additionalProperties": {
      const { additionalProperty } = error.params as { additionalProperty: string };
      const parent = error.parentSchema as { readonly title?: string; readonly properties?: object } | undefined;
      const known = Object.keys(parent?.properties ?? {});
      const hint = didYouMean(additionalProperty, known) ?? `Known keys: ${known.join(", ")}.`;
      // A setting of other languages is not a typing error.
      const isForeign = parent?.title !== undefined && additionalProperty in sharedSettings;
      return problem(
        "config.invalid",
        isForeign
          ? `An SDK in ${parent.title} has no setting \`${additionalProperty}\`.`
          : `The key \`${additionalProperty}\` is unknown.`,
        details(atKey(below(place, additionalProperty)), hint),
      );
    }
    case "required": {
      const { missingProperty } = error.params as { missingProperty: string };
      return problem("config.invalid", `\`${key}\` needs the key \`${missingProperty}\`.`, details(place));
    }
    case "enum":
      return notAmong((error.params as { allowedValues: unknown[] }).allowedValues, error.data, { key, place });
    case "pattern":
      return error.propertyName === undefined
        ? valueProblem(error, key, place)
        : problem(
            "config.invalid",
            `\`${error.propertyName}\` is not a valid name.`,
            details(
              atKey(below(place, error.propertyName)),
              "A name begins with a lower-case letter. It contains lower-case letters, digits and hyphens.",
            ),
          );
    case "type":
      return problem("config.invalid", `\`${key}\` must be ${typeWords(error.params["type"])}.`, details(place));
    case "anyOf":
      return (
        wordProblem(error, key, place) ??
        problem(
          "config.invalid",
          pointerTokens(error.instancePath)[0] === "releases"
            ? `\`${key}\` must be a revision such as \`git:v1.2\`, or \`{ at: git:v1.2, share: 0.12 }\` with a fraction.`
            : `\`${key}\` must be a path, a URL, a list of those, or \`{ run: "command" }\`.`,
          details(place),
        )
      );
    default:
      return problem("config.invalid", `\`${key}\` ${error.message ?? "is not valid"}.`, details(place));
  }
}

interface Keyed {
  readonly key: string;
  readonly place: PointerPlace;
}

/** A value that is not valid for its key. */
function notAmong(values: readonly unknown[], data: unknown, { key, place }: Keyed): Problem {
  const allowed = values.map(String);
  const hint = didYouMean(String(data), allowed) ?? `Use one of: ${allowed.join(", ")}.`;
  return problem("config.invalid", `\`${key}\` cannot be ${JSON.stringify(data)}.`, { place, hint });
}

/** The value that is not one of a key's words, or not a list of them; undefined if the key allows other values. */
function wordProblem({ schema, data }: ErrorObject, key: string, place: PointerPlace): Problem | undefined {
  const words = (schema as readonly { readonly enum?: readonly unknown[] }[]).find((each) => each.enum)?.enum;
  if (!words) return undefined;
  const wrong: unknown = Array.isArray(data) ? data.find((each) => !words.includes(each)) : data;
  // A list with only valid words contains one of them twice.
  if (wrong === undefined) return problem("config.invalid", `\`${key}\` contains a duplicate.`, { place });
  return notAmong(words, wrong, { key, place });
}

/** A text that must have a pattern of its own. The schema has an example. */
function valueProblem(error: ErrorObject, key: string, place: PointerPlace): Problem {
  const { pattern } = error.params as { readonly pattern: string };
  const [example] = (error.parentSchema as { readonly examples?: readonly string[] } | undefined)?.examples ?? [];
  const hint = `It must match \`${pattern}\`${example === undefined ? "" : `, as \`${example}\` does`}.`;
  return problem("config.invalid", `\`${key}\` cannot be ${JSON.stringify(error.data)}.`, { place, hint });
}

function typeWords(type: unknown): string {
  const words: Readonly<Record<string, string>> = {
    object: "a mapping with keys",
    array: "a list",
    string: "text",
    number: "a number",
    boolean: "true or false",
  };
  return words[String(type)] ?? String(type);
}

function crossChecks({ contracts, sdks, guard }: Configuration, document: string): Problem[] {
  const problems: Problem[] = unknownChanges(guard, document);
  const names = Object.keys(contracts);
  for (const [sdk, { covers }] of Object.entries(sdks)) {
    covers.forEach((covered, at) => {
      if (names.includes(covered)) return;
      const hint = didYouMean(covered, names) ?? `Configured: ${names.join(", ")}.`;
      problems.push(
        problem("config.invalid", `The SDK \`${sdk}\` covers \`${covered}\`, which is not a configured contract.`, {
          place: pointerPlace(document, `/sdks/${sdk}/covers/${String(at)}`),
          hint,
        }),
      );
    });
  }
  for (const [name, { from, headers }] of Object.entries(contracts)) {
    const sources = typeof from === "string" ? [from] : "run" in from ? [] : from;
    if (headers !== undefined && !sources.some(isUrl)) {
      const place = atKey(pointerPlace(document, `/contracts/${name}/headers`));
      const message = `\`headers\` of \`${name}\` has no effect: it does not come from a URL.`;
      problems.push(problem("config.ineffective", message, { level: "warning", place }));
    }
  }
  return [...problems, ...folderProblems(sdks, document)];
}

/** Folders that no SDK can use: those of version control and of Rhema's state, and one that another SDK uses. */
function folderProblems(sdks: Configuration["sdks"], document: string): Problem[] {
  const taken = new Map<string, string>();
  return Object.entries(sdks).flatMap(([sdk, { into }]) => {
    const place = pointerPlace(document, `/sdks/${sdk}/into`);
    // Some file systems do not distinguish upper and lower case.
    const folder = posix.normalize(into.replaceAll("\\", "/")).replace(/\/+$/, "").toLowerCase();
    const refused = folder.split("/").find((part) => [".git", ".rhema", "node_modules"].includes(part));
    if (refused !== undefined || into.includes("\0")) {
      const why = refused === undefined ? "has a character that no path can have" : `is inside \`${refused}\``;
      const message = `The SDK \`${sdk}\` cannot be written to \`${visible(into)}\`, which ${why}.`;
      return [problem("config.invalid", message, { place, hint: "Choose a folder of its own, such as `src/sdk`." })];
    }
    const other = [...taken].find(
      ([known]) => known === folder || known.startsWith(`${folder}/`) || folder.startsWith(`${known}/`),
    );
    taken.set(folder, sdk);
    if (!other) return [];
    const message = `The SDKs \`${other[1]}\` and \`${sdk}\` have the same output folder, or one is inside the other.`;
    return [problem("config.invalid", message, { place, hint: "Give each SDK a folder of its own." })];
  });
}

/** Codes of changes that do not exist. */
function unknownChanges(guard: Configuration["guard"], document: string): Problem[] {
  const named = [
    ...Object.keys(guard?.rules ?? {}).map((code): [string, PointerPlace] => [
      code,
      atKey(pointerPlace(document, `/guard/rules/${code}`)),
    ]),
    ...(guard?.accepted ?? []).map(({ change }, at): [string, PointerPlace] => [
      change,
      pointerPlace(document, `/guard/accepted/${String(at)}/change`),
    ]),
  ];
  return named.flatMap(([code, place]) => {
    if (isChangeCode(code)) return [];
    const hint = didYouMean(code, Object.keys(changeMeanings)) ?? "docs/changes.md lists all of them.";
    return [problem("config.invalid", `There is no change with the code \`${code}\`.`, { place, hint })];
  });
}

function secrets({ contracts }: Configuration, document: string): Problem[] {
  const inClear = (what: string, place: PointerPlace): Problem =>
    problem("config.secret", `${what} seems to contain a secret.`, {
      level: "warning",
      place: atKey(place),
      hint: "Write ${NAME} and set NAME in the environment.",
    });
  return Object.entries(contracts).flatMap(([name, { from, headers = {} }]) => [
    ...(typeof from === "object" && "run" in from ? [] : [from].flat())
      .filter((source) => source.includes("://") && hideSecrets(source) !== source)
      .map(() => inClear(`The address of \`${name}\``, pointerPlace(document, `/contracts/${name}/from`))),
    ...Object.entries(headers)
      .filter(([header, value]) => isSecretName(header) && !value.includes("${"))
      .map(([header]) =>
        inClear(
          `The header \`${header}\` of \`${name}\``,
          below(pointerPlace(document, `/contracts/${name}/headers`), header),
        ),
      ),
  ]);
}
