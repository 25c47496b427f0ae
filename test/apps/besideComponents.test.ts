import { build } from "esbuild";
import { expect, it } from "vitest";
import { build as viteBuild } from "vite";
import { chromium } from "../support/chromium.js";
import { appProject, openedApp } from "./support/openedApp.js";

/** A component with the fragment that it shows. It knows no query, and no other fragment. */
const tile = `import { passagesQueries, type SealedAs } from "./sdk/passages/index.js";
import { unseal } from "./sdk/wire/index.js";

passagesQueries(/* GraphQL */ \`
  fragment VoyageTile on Voyage {
    id
    status
    vessel {
      ...VesselName
    }
  }
\`);

passagesQueries(/* GraphQL */ \`
  fragment VesselName on Vessel {
    name
  }
\`);

export function VoyageTile({ voyage }: { voyage: SealedAs<"VoyageTile"> }) {
  const { id, status, vessel } = unseal("VoyageTile", voyage);
  return <li>{id} {status} <VesselName vessel={vessel} /></li>;
}

export function VesselName({ vessel }: { vessel: SealedAs<"VesselName"> | null }) {
  return <b>{unseal("VesselName", vessel)?.name}</b>;
}
`;
const app = `import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { cachedPassages } from "./sdk/passages/cached.js";
import { connectPassages, passagesQueries } from "./sdk/passages/index.js";
import { useAnswer, useChange } from "./sdk/views/react.js";
import { edited } from "./sdk/wire/index.js";
import { VoyageTile } from "./tile.js";

declare const address: string;
passagesQueries(\`
  query ArrivalBoard($day: Day!) {
    voyages(first: 3, filter: { arrivingOn: $day }) {
      edges { node { ...VoyageTile } }
    }
  }
\`);
passagesQueries(\`
  mutation Report($report: ArrivalReport!) {
    reportArrival(report: $report) { __typename }
  }
\`);

const headers = { "rhema-play": "delay=300" };
const passages = cachedPassages(connectPassages({ baseUrl: address + "/passages" }));
const slow = cachedPassages(connectPassages({ baseUrl: address + "/passages", headers }));

function Board() {
  const day = useAnswer(passages.arrivalBoard({ day: "2026-05-01" }));
  const report = useChange(slow.report(), {
    predict: ({ report: { voyageId } }) =>
      day.predict((answer) =>
        // The fields are in two fragments, which only their components unseal.
        edited(answer, () => ({
          voyages: () => ({
            edges: () => ({
              node: ({ id }) =>
                id === voyageId ? { status: "ARRIVED", vessel: () => ({ name: (name) => name + " (here)" }) } : undefined,
            }),
          }),
        })),
      ),
  });
  // Partial data has the type of the response.
  const nodes = (day.failure?.status === "errors" ? day.failure.data : day.answer)?.voyages.edges.map(({ node }) => node) ?? [];
  return (
    <main>
      <ul id="tiles">{nodes.map((node, at) => <VoyageTile key={at} voyage={node} />)}</ul>
      <p id="report">{report.state}</p>
      <button id="arrive" onClick={() => { void report.send({ report: { voyageId: document.querySelector("li")!.innerText.split(" ")[0]!, at: "2026-05-01T08:00:00Z" } }); }}>arrive</button>
    </main>
  );
}

createRoot(document.getElementById("app")!).render(<StrictMode><Board /></StrictMode>);
`;
const wrong = `import type { ArrivalBoardAnswer, SealedAs } from "./sdk/passages/index.js";
import { edited } from "./sdk/wire/index.js";
import { VesselName } from "./tile.js";

declare const answer: ArrivalBoardAnswer;
export function Wrong({ voyage }: { voyage: SealedAs<"VoyageTile"> }) {
  // @ts-expect-error -- another fragment
  const name = <VesselName vessel={voyage} />;
  // @ts-expect-error -- a field of a fragment that nobody has unsealed
  voyage.status;
  // @ts-expect-error -- a fragment that there is none of
  const none = (tile: SealedAs<"VoyageTyle">) => tile;
  edited(answer, () => ({
    // @ts-expect-error -- a status that the schema does not have
    voyages: () => ({
      edges: () => ({
        node: () => ({ status: "SUNK" }),
      }),
    }),
  }));
  return [name, none];
}
`;

it.skipIf(chromium === undefined)(
  "queries are in files next to components, are independent of each other, and are bundled once",
  async () => {
    const project = await appProject(
      { "src/main.tsx": app, "src/tile.tsx": tile, "src/wrong.tsx": wrong },
      "{ fragments: sealed, views: react }",
      (config) => config.replace('["queries/**/*.graphql"]', '["src/*.tsx"]'),
    );
    expect(project.compile({ jsx: "react-jsx", moduleResolution: "bundler", module: "esnext" })).toBe("");
    const { says, click } = await openedApp(project, "src/main.tsx");
    await says("tiles", /^\S+ [A-Z_]+ \w+/);
    await click("arrive");
    await says("tiles", /^\S+ ARRIVED [^\n]+ \(here\)/);
    await says("report", "done");

    const entry = project.path("src/main.tsx");
    const packed = await build({
      ...{ entryPoints: [entry], bundle: true, minify: true, write: false, format: "esm", jsx: "automatic" },
    });
    const built = (await viteBuild({
      root: project.folder,
      logLevel: "error",
      build: { write: false, lib: { entry, formats: ["es"] } },
    })) as { output: { code: string }[] }[];
    for (const code of [packed.outputFiles[0]?.text, built[0]?.output[0]?.code]) {
      expect(code?.match(/query ArrivalBoard\(/g)?.length).toBe(1);
      expect(code?.match(/fragment VoyageTile on Voyage/g)?.length).toBe(1);
    }
  },
);
