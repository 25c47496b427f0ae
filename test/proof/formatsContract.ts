const json = (schema: object): object => ({ content: { "application/json": { schema } } });
const mooring = { type: "string", format: "mooring-code" };
const needed = { required: true, schema: mooring };

/**
 * A format of the app's own wherever a string is possible, and one whose name is hard to distinguish from it. A type of
 * the contract has the name of the app's own.
 */
export const formatsContract = {
  openapi: "3.1.0",
  info: { title: "Quay", version: "1" },
  paths: {
    "/moorings/{at}": {
      get: {
        operationId: "getMooring",
        parameters: [
          { name: "at", in: "path", ...needed },
          { name: "near", in: "query", schema: { type: "array", items: mooring } },
          {
            name: "by",
            in: "query",
            style: "deepObject",
            explode: true,
            schema: { $ref: "#/components/schemas/Code" },
          },
          { name: "X-From", in: "header", schema: mooring },
        ],
        responses: {
          200: { description: "", headers: { "X-Next": { schema: mooring } }, ...json(mooring) },
          409: { description: "", ...json({ $ref: "#/components/schemas/Mooring" }) },
        },
      },
      put: {
        operationId: "putMooring",
        parameters: [{ name: "at", in: "path", ...needed }],
        requestBody: {
          content: {
            "multipart/form-data": { schema: { $ref: "#/components/schemas/Code" } },
            "text/plain": { schema: mooring },
          },
        },
        responses: { 204: { description: "" } },
      },
    },
  },
  webhooks: {
    moved: {
      post: {
        requestBody: { required: true, ...json({ $ref: "#/components/schemas/Mooring" }) },
        responses: { 200: { description: "", ...json({ $ref: "#/components/schemas/Mooring" }) } },
      },
    },
  },
  components: {
    schemas: {
      Code: { type: "object", properties: { code: mooring } },
      Mooring: {
        type: "object",
        required: ["at", "many"],
        properties: {
          at: mooring,
          before: { type: ["string", "null"], format: "mooring-code" },
          many: { type: "array", items: mooring },
          named: { type: "object", additionalProperties: { ...mooring, format: "mooring.code" } },
        },
      },
    },
  },
};

export const movedText = '{"at":"N-07","before":null,"many":["S-1","S-2"],"named":{"home":"E-3"}}';
