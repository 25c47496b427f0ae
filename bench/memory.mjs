// Loaded into a measured process: writes its peak memory in KB to the file named by BENCH_MEMORY when it ends.
import { writeFileSync } from "node:fs";

process.on("exit", () => {
  writeFileSync(process.env.BENCH_MEMORY, String(process.resourceUsage().maxRSS));
});
