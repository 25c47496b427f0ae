const json = (schema: object): object => ({ content: { "application/json": { schema } } });
const text = { type: "string" };

/** Types of the contract have the names of a webhook object's members. */
export const webhookContract = {
  openapi: "3.1.0",
  info: { title: "Quay", version: "1" },
  paths: {},
  webhooks: {
    freed: {
      post: {
        parameters: [
          { name: "X-Signature", in: "header", required: true, schema: text, description: "Signs */ the body." },
          { name: "class", in: "header", deprecated: true, schema: text },
          { name: "since", in: "query", schema: { type: "integer" } },
        ],
        requestBody: { required: true, ...json({ $ref: "#/components/schemas/Query" }) },
        responses: { 200: { description: "", ...json({ $ref: "#/components/schemas/Headers" }) } },
      },
    },
  },
  components: {
    schemas: {
      Query: { type: "object", required: ["berth"], properties: { berth: text, length: { type: "number" } } },
      Headers: { type: "object", properties: { taken: { type: "boolean" } } },
    },
  },
};
