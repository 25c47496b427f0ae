import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import type { StatusReading } from "../../../sdk/lower/reading.js";
import { quoted } from "../names/escape.js";
import { checkText } from "../types/printChecks.js";
import { conversionText } from "../types/printConversions.js";
import type { TypePrinter } from "../types/printType.js";

/** Prints the fields of a request that define how responses are read, by requested media type if there is a choice. */
export function printReadings({ answers, failures, answersByType }: LoweredCall, printer: TypePrinter): string[] {
  const [usual, ...others] = answersByType;
  if (!usual) return readFields(answers, failures, printer);
  const ways = others.map(
    (other) =>
      `args.answerType === ${quoted(other.mediaType)} ? { ${readFields(other.answers, failures, printer).join(", ")} } : `,
  );
  return [`...(${ways.join("")}{ ${readFields(answers, failures, printer).join(", ")} })`];
}

function readFields(
  answers: readonly StatusReading[],
  failures: readonly StatusReading[],
  printer: TypePrinter,
): string[] {
  return [...conversionFields(answers, failures, printer), `answers: ${readTable(answers)}`];
}

/** How bodies are converted, if they differ in the app. */
function conversionFields(
  answers: readonly StatusReading[],
  failures: readonly StatusReading[],
  printer: TypePrinter,
): string[] {
  // A lone `default` is for successes and failures, which are read differently if successes are streams.
  const failureKey = ({ status }: StatusReading): string =>
    answers.some((answer) => answer.status === status) ? quoted(`failed ${status}`) : statusKey(status);
  const rows = [
    ...answers.map((reading) => ({ key: statusKey(reading.status), reading })),
    ...failures.map((reading) => ({ key: failureKey(reading), reading })),
  ].flatMap(({ key, reading }) => {
    const text = readingText(reading, printer);
    return text === undefined ? [] : [`${key}: ${text}`];
  });
  if (rows.length === 0) return [];
  const isExact = [...answers, ...failures].some((reading) => reading.isExact);
  return [`conversions: { ${rows.join(", ")} }`, ...(isExact ? ["parse: wire.parseExact"] : [])];
}

function readingText({ conversion, isExact, check }: StatusReading, printer: TypePrinter): string | undefined {
  const plain = conversion && conversionText(conversion, printer);
  const converted = plain !== undefined && isExact ? `wire.exact(${plain})` : plain;
  if (!check) return converted;
  return `wire.verified(${checkText(check, printer)}${converted === undefined ? "" : `, ${converted}`})`;
}

function statusKey(status: string): string {
  return /^[1-9]\d*$/.test(status) || status === "default" ? status : quoted(status);
}

/** Returns the table that tells the runtime how the body of each status is read. */
export function readTable(readings: readonly StatusReading[]): string {
  return `{ ${readings.map(({ status, as }) => `${statusKey(status)}: ${quoted(as)}`).join(", ")} }`;
}
