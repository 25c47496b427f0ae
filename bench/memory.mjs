// Loaded into a measured process: when it ends, it writes its peak memory in KB to the file in BENCH_MEMORY.
import { writeFileSync } from "node:fs";

process.on("exit", () => {
  writeFileSync(process.env.BENCH_MEMORY, String(process.resourceUsage().maxRSS));
});
