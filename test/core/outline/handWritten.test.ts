import { describe, expect, it } from "vitest";
import { hole, requestedOperation, type RequestedOperation } from "../../../src/core/outline/handWritten.js";

const servers = ["https://harbour.ostrel.example/v1", "/proxied"];
const operations = [
  "GET /berths",
  "GET /berths/{}",
  "GET /berths/free",
  "POST /berths",
  "GET /files/{}.json",
  "GET /{}",
].map((label): RequestedOperation => {
  const [method = "", path = ""] = label.split(" ");
  return { contract: "harbour", label, method, path, servers, call: label };
});

describe("the operation that a URL belongs to", () => {
  it.each([
    ["/berths", "GET /berths"],
    ["/berths/?status=free", "GET /berths"],
    [`${hole}/berths`, "GET /berths"],
    ["https://harbour.ostrel.example/v1/berths#top", "GET /berths"],
    ["/v1/berths", "GET /berths"],
    ["/proxied/berths", "GET /berths"],
    [`/berths/${hole}`, "GET /berths/{}"],
    ["/berths/N-07", "GET /berths/{}"],
    ["/berths/free", "GET /berths/free"],
    [`/files/${hole}.json`, "GET /files/{}.json"],
  ])("%j is %s", (address, label) => {
    expect(requestedOperation(address, "get", operations)?.label).toBe(label);
  });

  it.each([
    "https://weather.example/berths",
    "//weather.example/berths",
    "https://harbour.ostrel.example/v2/berths",
    "https://harbour.ostrel.example/v1berths",
    "/berth",
    "/berths/N-07/more",
    "/berths//",
    "/files/.json",
    "/anything",
    "berths",
    hole,
    "",
  ])("%j belongs to none", (address) => {
    expect(requestedOperation(address, "GET", operations)).toBeUndefined();
  });

  it("has the method of the request", () => {
    expect(requestedOperation("/berths", "post", operations)?.label).toBe("POST /berths");
    expect(requestedOperation("/berths", "DELETE", operations)).toBeUndefined();
  });
});
