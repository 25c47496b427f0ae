import { Option } from "commander";
import { usualGate, type Gate } from "../core/change/gate.js";

/** What a command line says about the gate. */
export interface GateFlags {
  readonly gate?: Gate["level"];
  readonly judge?: Gate["judge"];
}

/** `--gate` and `--judge`, the same for every command that takes them. */
export function gateOptions(usual: Gate["level"]): [Option, Option] {
  return [
    new Option("--gate <level>", "what is not let through").choices(["breaking", "risky", "off"]).default(usual),
    new Option("--judge <clock>", "which clock counts").choices(["code", "apps", "both"]).default(usualGate.judge),
  ];
}

export function gateOf({ gate = usualGate.level, judge = usualGate.judge }: GateFlags): Gate {
  return { level: gate, judge };
}
