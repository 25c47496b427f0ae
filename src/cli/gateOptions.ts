import { InvalidArgumentError, Option } from "commander";
import { usualGate, type Gate } from "../core/change/judge/gate.js";

/** The options of the gate. */
export interface GateFlags {
  readonly gate?: Gate["level"];
  readonly judge?: Gate["judge"];
}

/**
 * Returns `--gate` and `--judge`, the same for every command with a gate.
 *
 * @param usual the default level
 */
export function gateOptions(usual: Gate["level"]): [Option, Option] {
  return [
    new Option("--gate <level>", "fail at this level or worse").choices(["breaking", "risky", "off"]).default(usual),
    new Option("--judge <verdict>", "which verdict counts").choices(["code", "apps", "both"]).default(usualGate.judge),
  ];
}

/** Returns the gate that the options of a command line describe. */
export function gateOf({ gate = usualGate.level, judge = usualGate.judge }: GateFlags): Gate {
  return { level: gate, judge };
}

/**
 * Returns `--most-users`: the share of users that a change may break, by the shares of the releases.
 *
 * @throws InvalidArgumentError (when it is parsed) if the text is not a share
 */
export function mostUsersOption(): Option {
  return new Option(
    "--most-users <share>",
    "share of users that a change may break, such as 1%; released apps then count by `releases` only",
  ).argParser((text: string): number => {
    const [, digits = "", sign] = /^(\d+(?:\.\d+)?)\s*(%?)$/.exec(text.trim()) ?? [];
    const share = Number(digits) / (sign === "%" ? 100 : 1);
    if (digits === "" || share > 1) throw new InvalidArgumentError("Use a share such as 1% or 0.01.");
    return share;
  });
}
