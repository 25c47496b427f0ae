import type { GraphQLSchema } from "graphql";
import { Hono } from "hono";
import { cors } from "hono/cors";
import type { Contract } from "../core/contract/model.js";
import { playGraphql } from "./playGraphql.js";
import { playRest } from "./playRest.js";

/** A contract to play, as it was read. */
export interface PlayedContract {
  readonly contract: Contract;
  readonly schema?: GraphQLSchema | undefined;
  /** REST: the parsed document. */
  readonly raw?: unknown;
}

export interface StandinOptions {
  readonly seed: number;
  readonly eventEveryMs: number;
  /** Told of each request when it was answered. */
  readonly onCall?: (line: { method: string; path: string; status: number }) => void;
}

/** Makes the stand-in: each contract is played below its name, `/berths/…` and `/passages`, for any origin. */
export function createStandin(
  contracts: readonly PlayedContract[],
  { seed, eventEveryMs, onCall }: StandinOptions,
): Hono {
  const app = new Hono();
  app.use("*", cors({ origin: (origin) => origin || "*", credentials: true, exposeHeaders: ["*"] }));
  if (onCall) {
    app.use("*", async (context, next) => {
      await next();
      onCall({ method: context.req.method, path: new URL(context.req.url).pathname, status: context.res.status });
    });
  }
  for (const { contract, schema, raw } of contracts) {
    if (contract.protocol === "rest") {
      const play = playRest(contract, raw, seed);
      const handle = (request: Request): Promise<Response> =>
        play(request, new URL(request.url).pathname.slice(contract.name.length + 1) || "/");
      app.all(`/${contract.name}`, (context) => handle(context.req.raw));
      app.all(`/${contract.name}/*`, (context) => handle(context.req.raw));
    } else if (schema) {
      const play = playGraphql(schema, { seed, eventEveryMs });
      app.all(`/${contract.name}`, (context) => play(context.req.raw, () => context.req.formData()));
    }
  }
  app.get("/", (context) =>
    context.json({
      playing: contracts.map(({ contract }) => ({
        contract: contract.name,
        protocol: contract.protocol,
        at: `/${contract.name}`,
      })),
    }),
  );
  app.notFound((context) =>
    context.json(
      {
        title: "Nothing is played here",
        status: 404,
        detail: `Played: ${contracts.map(({ contract }) => `/${contract.name}`).join(", ")}.`,
      },
      404,
    ),
  );
  app.onError((error, context) =>
    context.json({ title: "The stand-in met a defect of its own", status: 500, detail: error.message }, 500),
  );
  return app;
}
