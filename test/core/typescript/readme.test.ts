import { expect, it } from "vitest";
import { printRest } from "../../support/readRest.js";

it("the README connects with a credential from the app, and not with a certificate", () => {
  const contract = (schemes: object) => ({
    openapi: "3.1.0",
    info: { title: "Tides", version: "1" },
    paths: { "/tides": { get: { security: Object.keys(schemes).map((name) => ({ [name]: [] })), responses: {} } } },
    components: { securitySchemes: schemes },
  });
  const card = { type: "mutualTLS" };
  const token = { type: "http", scheme: "bearer" };
  const readme = (schemes: object) => printRest(contract(schemes)).get("README.md");
  expect(readme({ card, token })).toContain('auth: { token: () => "token" }');
  expect(readme({ card })).not.toContain("auth:");
});
