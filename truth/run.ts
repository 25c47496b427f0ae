import { measured, told } from "./measured.js";

const [singles = "300", several = "0", words = "", seed = "1"] = process.argv.slice(2);
const started = Date.now();
const truth = await measured(process.cwd(), {
  singles: Number(singles),
  several: Number(several),
  words,
  seed: Number(seed),
});
process.stdout.write(`${told(truth).join("\n")}, ${String(Math.round((Date.now() - started) / 1000))} s\n`);
