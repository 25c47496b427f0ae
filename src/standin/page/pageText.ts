import { pageScript } from "./pageScript.js";
import { pageStyle } from "./pageStyle.js";

/**
 * Returns the stand-in server's page: one document with everything in it, which gets its content from `/.play`.
 *
 * @param nonce the nonce of its styles and script
 */
export function pageText(nonce: string): string {
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Rhema play</title>
<link rel="icon" href="data:,">
<style nonce="${nonce}">${pageStyle}</style>
</head>
<body>
<header>
<h1>Rhema play</h1>
<p id="state" role="status">Connecting</p>
<button id="forget" type="button">Reset data</button>
</header>
<main>
<section aria-labelledby="operations-title">
<h2 id="operations-title">Operations</h2>
<label class="search">Find <input id="search" type="search" placeholder="name, path or contract"></label>
<p id="found" class="quiet"></p>
<div id="operations"></div>
</section>
<section aria-labelledby="calls-title">
<h2 id="calls-title">Last requests</h2>
<label class="search"><input id="only" type="checkbox"> only mismatches</label>
<p id="none" class="quiet">No requests yet. Send a sample, or point your app at this address.</p>
<div id="calls" aria-live="polite"></div>
</section>
</main>
<script nonce="${nonce}">${pageScript}</script>
</body>
</html>
`;
}
