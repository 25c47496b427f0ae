import { visibleLines } from "../text/visible.js";
import { changeMeanings, type ChangeCode } from "../change/changeCodes.js";
import type { Finding } from "./impactFindings.js";

/**
 * Returns findings as a SARIF log (SARIF 2.1.0): one result each, and a rule for every code.
 *
 * @param version the version of Rhema
 */
export function sarif(findings: readonly Finding[], version: string): object {
  const codes = [...new Set(findings.map(({ code }) => code))].sort();
  return {
    version: "2.1.0",
    runs: [
      {
        tool: {
          driver: {
            name: "Rhema",
            version,
            rules: codes.map((id) => ({ id, shortDescription: { text: titleOf(id) } })),
          },
        },
        results: findings.map((finding) => ({
          ruleId: finding.code,
          ruleIndex: codes.indexOf(finding.code),
          level: finding.isHeld ? "error" : finding.level === "compatible" ? "note" : "warning",
          message: { text: finding.message },
          properties: { contract: finding.contract, use: finding.use },
          ...(finding.at
            ? {
                locations: [
                  {
                    physicalLocation: {
                      artifactLocation: { uri: finding.at.file.split("/").map(encodeURIComponent).join("/") },
                      region: { startLine: finding.at.line, startColumn: finding.at.column },
                    },
                  },
                ],
              }
            : {}),
        })),
      },
    ],
  };
}

function titleOf(code: string): string {
  return Object.hasOwn(changeMeanings, code) ? changeMeanings[code as ChangeCode].title : code;
}

/**
 * Returns findings as JUnit XML: a suite for each contract, and a case for each finding, which fails if the gate does.
 */
export function junit(findings: readonly Finding[], contracts: readonly string[]): string {
  const suites = contracts.map((contract) => {
    const own = findings.filter((finding) => finding.contract === contract);
    const failed = own.filter(({ isHeld }) => isHeld).length;
    const cases = own.map((finding) => {
      const where = finding.at
        ? `${finding.at.file}:${String(finding.at.line)}:${String(finding.at.column)}`
        : contract;
      const name = `${finding.code} ${where}`;
      const failure = finding.isHeld
        ? `\n      <failure message="${xml(finding.message)}" type="${xml(finding.level)}">${xml(`${where}\n${finding.message}`)}</failure>\n    `
        : "";
      return `    <testcase classname="${xml(contract)}" name="${xml(name)}">${failure}</testcase>\n`;
    });
    const none = `    <testcase classname="${xml(contract)}" name="no change of meaning"></testcase>\n`;
    const count = Math.max(1, own.length);
    return `  <testsuite name="${xml(contract)}" tests="${String(count)}" failures="${String(failed)}">\n${cases.join("") || none}  </testsuite>\n`;
  });
  return `<?xml version="1.0" encoding="UTF-8"?>\n<testsuites name="rhema impact">\n${suites.join("")}</testsuites>`;
}

/** One tested part, and its error. */
export interface JunitCase {
  readonly suite: string;
  readonly name: string;
  readonly failures: readonly { readonly message: string; readonly detail: string }[];
}

/**
 * Returns cases as JUnit XML, with a suite for each suite name, in order.
 *
 * @param name the name of the whole report
 */
export function junitSuites(name: string, cases: readonly JunitCase[]): string {
  const suites = [...new Set(cases.map(({ suite }) => suite))].map((suite) => {
    const own = cases.filter((each) => each.suite === suite);
    const failed = own.filter(({ failures }) => failures.length > 0).length;
    const rows = own.map(({ name: tested, failures }) => {
      const wrong = failures.map(
        ({ message, detail }) => `\n      <failure message="${xml(message)}">${xml(detail)}</failure>`,
      );
      const inner = wrong.length === 0 ? "" : `${wrong.join("")}\n    `;
      return `    <testcase classname="${xml(suite)}" name="${xml(tested)}">${inner}</testcase>\n`;
    });
    return `  <testsuite name="${xml(suite)}" tests="${String(own.length)}" failures="${String(failed)}">\n${rows.join("")}  </testsuite>\n`;
  });
  return `<?xml version="1.0" encoding="UTF-8"?>\n<testsuites name="${xml(name)}">\n${suites.join("")}</testsuites>`;
}

/**
 * Characters that are not valid in XML 1.0 (section 2.2), and invisible ones, are removed or shown. The rest is
 * escaped.
 */
function xml(text: string): string {
  return visibleLines(text)
    .replace(/[\ufffe\uffff]/g, "")
    .replaceAll("&", "&amp;")
    .replaceAll("<", "&lt;")
    .replaceAll(">", "&gt;")
    .replaceAll('"', "&quot;")
    .replaceAll("\n", "&#10;");
}

/** Returns findings as commands that a workflow shows next to the changed lines. Compatible changes are left out. */
export function annotations(findings: readonly Finding[]): string[] {
  return findings
    .filter(({ level, use }) => level !== "compatible" && use !== "not used")
    .map((finding) => {
      const kind = finding.isHeld ? "error" : "warning";
      const place = finding.at
        ? [`file=${property(finding.at.file)}`, `line=${String(finding.at.line)}`, `col=${String(finding.at.column)}`]
        : [];
      const properties = [...place, `title=${property(finding.code)}`].join(",");
      return `::${kind} ${properties}::${data(finding.message)}`;
    });
}

function data(text: string): string {
  return text.replaceAll("%", "%25").replaceAll("\r", "%0D").replaceAll("\n", "%0A");
}

function property(text: string): string {
  return data(text).replaceAll(":", "%3A").replaceAll(",", "%2C");
}
