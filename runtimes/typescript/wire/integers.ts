import type { Body, Conversion } from "./bodies.js";

/** Precedes the digits of an integer that a JavaScript number cannot represent. */
const mark = "\u0000integer:";
const marked = /"\\u0000integer:(-?\d+)"/g;
const wholeNumbers = /"(?:[^"\\]|\\.)*"|-?\d{16,}(?![\d.eE])/g;

/** Parses JSON and keeps all digits of integers with 16 digits or more, for `decode` to convert. */
export function parseExact(text: string): unknown {
  return JSON.parse(
    text.replace(wholeNumbers, (found) => (found.startsWith('"') ? found : `"\\u0000integer:${found}"`)),
  );
}

/** An exact integer that no type converts becomes a plain number again. */
export function plainNumbers(value: unknown): unknown {
  if (typeof value === "string") return value.startsWith(mark) ? Number(value.slice(mark.length)) : value;
  if (Array.isArray(value)) return value.map(plainNumbers);
  if (typeof value !== "object" || value === null || value instanceof Date) return value;
  if (Object.getPrototypeOf(value) !== Object.prototype) return value;
  const copy: Record<string, unknown> = { ...value };
  for (const name of Object.keys(copy)) copy[name] = plainNumbers(copy[name]);
  return copy;
}

function digitsOf(value: unknown): string | undefined {
  if (typeof value === "string") return value.startsWith(mark) ? value.slice(mark.length) : undefined;
  return typeof value === "number" && Number.isInteger(value) ? BigInt(value).toString() : undefined;
}

/** 64-bit integers as bigint. */
export const bigints: Conversion = {
  decode: (value) => {
    const digits = digitsOf(value);
    return digits === undefined ? value : BigInt(digits);
  },
  encode: (value) => value,
};

/** 64-bit integers as their digits. */
export const integerTexts: Conversion = {
  decode: (value) => digitsOf(value) ?? value,
  encode: (value) => (typeof value === "string" && /^-?\d+$/.test(value) ? BigInt(value) : value),
};

/** The conversion of a whole body that was parsed exactly. */
export function exact(conversion: Conversion): Conversion {
  return { decode: (value) => plainNumbers(conversion.decode(value)), encode: conversion.encode };
}

/** JSON in which bigints are written as numbers. */
export function exactText(value: unknown): string {
  return JSON.stringify(value, (_name, each: unknown) =>
    typeof each === "bigint" ? mark + each.toString() : each,
  ).replace(marked, "$1");
}

/** A JSON body in which bigints are written as numbers. */
export function exactBody(value: unknown, type = "application/json"): Body | undefined {
  return value === undefined ? undefined : { data: exactText(value), type };
}
