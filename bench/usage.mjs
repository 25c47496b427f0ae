// Loaded into a measured process: when it ends, it writes its peak memory in KB and its CPU time in microseconds to the
// file in BENCH_USAGE.
import { writeFileSync } from "node:fs";

process.on("exit", () => {
  const { maxRSS, userCPUTime, systemCPUTime } = process.resourceUsage();
  writeFileSync(process.env.BENCH_USAGE, JSON.stringify({ memory: maxRSS, cpu: userCPUTime + systemCPUTime }));
});
