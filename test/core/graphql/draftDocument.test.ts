import { buildSchema, parse, validate } from "graphql";
import { describe, expect, it } from "vitest";
import { draftDocuments, rootFields } from "../../../src/core/graphql/documents/draftDocument.js";
import { makeGraphqlSchema } from "../../proof/random/graphql/makeGraphqlSchema.js";
import { Randomness } from "../../proof/random/randomness.js";

describe("drafts", () => {
  it("of 200 random schemas are valid at every depth", () => {
    let drafts = 0;
    for (let seed = 1; seed <= 200; seed++) {
      const schema = buildSchema(makeGraphqlSchema(new Randomness(seed)));
      for (const depth of [1, 2, 4]) {
        for (const { field, text } of draftDocuments(schema, { depth, fields: [] })) {
          drafts++;
          expect(validate(schema, parse(text)).map(({ message }) => `${field}: ${message}`)).toEqual([]);
        }
      }
      expect(rootFields(schema).length).toBeGreaterThan(0);
    }
    expect(drafts).toBeGreaterThan(1000);
  });
});
