// A small contract, and a large response of one of its calls, for comparing SDKs with hand-written code.

const text = { type: "string" };
const record = (required, properties) => ({ type: "object", required, properties });
/** The contract, as a document. */
export const contract = {
  openapi: "3.1.0",
  info: { title: "Quays", version: "1.0.0" },
  servers: [{ url: "http://localhost" }],
  paths: {
    "/berths": {
      get: {
        operationId: "listBerths",
        responses: {
          200: {
            description: "fine",
            content: { "application/json": { schema: { $ref: "#/components/schemas/Page" } } },
          },
        },
      },
    },
    "/berths/{berthId}/reservations": {
      post: {
        operationId: "reserve",
        parameters: [{ name: "berthId", in: "path", required: true, schema: text }],
        requestBody: {
          required: true,
          content: { "application/json": { schema: { $ref: "#/components/schemas/Request" } } },
        },
        responses: {
          201: {
            description: "done",
            content: { "application/json": { schema: { $ref: "#/components/schemas/Reservation" } } },
          },
        },
      },
    },
  },
  components: {
    schemas: {
      Page: record(["items"], { items: { type: "array", items: { $ref: "#/components/schemas/Berth" } } }),
      Berth: record(["id", "quay", "length", "places", "status", "tags"], {
        id: text,
        quay: text,
        length: { type: "number" },
        places: { type: "integer" },
        status: { type: "string", enum: ["free", "reserved", "occupied"] },
        shorePower: { type: "boolean" },
        note: { type: ["string", "null"] },
        tags: { type: "array", items: text },
        size: record(["width", "depth"], { width: { type: "number" }, depth: { type: "number" } }),
      }),
      Request: record(["vesselId", "arrival", "departure"], { vesselId: text, arrival: text, departure: text }),
      Reservation: record(["id", "berthId", "state", "arrival", "departure"], {
        id: text,
        berthId: text,
        state: text,
        arrival: text,
        departure: text,
      }),
    },
  },
};

/** The berths of a response of 5 MB. */
export const items = Array.from({ length: 26_000 }, (_, at) => ({
  id: `N-${at}`,
  quay: "north",
  length: 12.5 + (at % 7),
  places: at % 40,
  status: ["free", "reserved", "occupied"][at % 3],
  shorePower: at % 2 === 0,
  note: at % 5 === 0 ? null : `Beside the "old" crane, number ${at}`,
  tags: ["quiet", "deep"],
  size: { width: 4.25, depth: 3 },
}));
