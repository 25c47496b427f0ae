import { expect, it } from "vitest";
import { operationMatcher } from "../../src/standin/rest/matchOperation.js";
import { readRest } from "../support/readRest.js";

const paths = [
  "/berths",
  "/berths/free",
  "/berths/{berthId}",
  "/berths/{berthId}/reservations",
  "/charts/{quay}.{format}",
  "/charts/{from}to{until}",
  "/tides/{day}{half}",
  "/höhe",
  "/{a}/{b}/{c}/{d}/{e}",
];
const responses = { 200: { description: "Fine" } };
const { contract } = readRest({
  openapi: "3.1.0",
  info: { title: "Paths", version: "1" },
  paths: Object.fromEntries(
    paths.map((path) => [
      path,
      {
        get: {
          parameters: [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
            name,
            in: "path",
            required: true,
            schema: { type: "string" },
          })),
          responses,
        },
      },
    ]),
  ),
});
const match = operationMatcher(contract.operations);

it.each<[string, string, Record<string, string>]>([
  ["/berths", "/berths", {}],
  ["/berths/", "/berths", {}],
  ["/berths/free", "/berths/free", {}],
  ["/berths/N-07", "/berths/{berthId}", { berthId: "N-07" }],
  ["/berths/*%2F%20%24%7Bx%7D%20%60y%60/reservations", "/berths/{berthId}/reservations", { berthId: "*/ ${x} `y`" }],
  ["/charts/a.b.png", "/charts/{quay}.{format}", { quay: "a", format: "b.png" }],
  ["/charts/1to3", "/charts/{from}to{until}", { from: "1", until: "3" }],
  ["/tides/today", "/tides/{day}{half}", { day: "t", half: "oday" }],
  ["/h%C3%B6he", "/höhe", {}],
])("%s is %s", (path, operation, values) => {
  const found = match("GET", path);
  expect(found.kind === "match" && [found.match.operation.path, Object.fromEntries(found.match.pathValues)]).toEqual([
    operation,
    values,
  ]);
});

it.each(["/", "/berth", "/berths//", "/berths/a/b/c", "/charts/.png", "/charts/a.", "/charts/to", "/tides/t"])(
  "%s is not a path of the contract",
  (path) => {
    expect(match("GET", path).kind).toBe("none");
  },
);

it("finds a long path with many parameters in linear time", () => {
  const part = "a".repeat(100_000);
  expect(match("GET", `/${part}/${part}/${part}/${part}/${part}`).kind).toBe("match");
  expect(match("POST", `/${part}/${part}/${part}/${part}/${part}`)).toEqual({ kind: "method", allowed: ["GET"] });
});
