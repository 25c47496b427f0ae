import type { ExampleApp } from "../languageTools.js";
import { swiftToolchain } from "./toolchain.js";

/** The skipper's app of the demo, as a Swift package. */
export const skipperApp: ExampleApp = {
  folder: "skipper-swift",
  title: "The skipper's app is written in Swift",
  steps: (root, address) => {
    const toolchain = swiftToolchain();
    if (!toolchain)
      return "no Swift 6 compiler is found (`node scripts/toolchains.mjs` gets one into a checkout, as root on Debian)";
    const step = (title: string, ...command: string[]) => ({
      title,
      ...toolchain(["env", "-C", root, ...command], [root]),
      shown: command.join(" "),
    });
    return [
      // The build reports each file, even when it is told not to.
      { ...step("Build: the skipper's app compiles against its SDK.", "swift", "build"), isQuiet: true },
      step(
        "Run: the skipper's app talks to the stand-in server.",
        "swift",
        "run",
        "--skip-build",
        "--quiet",
        "Skipper",
        address,
      ),
    ];
  },
};
