import { afterEach } from "vitest";
import { cleanUp } from "./whenTestEnds.js";

// Runs for every file of tests, also where several share a process.
afterEach(cleanUp);
