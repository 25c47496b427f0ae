import { afterEach } from "vitest";
import { cleanUp } from "./whenTestEnds.js";

// Runs for every file of tests, also if several share a process.
afterEach(cleanUp);
