import { measured, told } from "./measured.js";

const [singles = "300", several = "0", words = "", seed = "1"] = process.argv.slice(2);
const toldEvery = 100;
let toldAt = 0;
const started = Date.now();
const truth = await measured(process.cwd(), {
  singles: Number(singles),
  several: Number(several),
  words,
  seed: Number(seed),
  appEvery: 1,
  onCase: (done) => {
    if (done % toldEvery !== 0 || done === toldAt) return;
    toldAt = done;
    const megabytes = Math.round(process.memoryUsage().heapUsed / 1e6);
    process.stderr.write(
      `${String(done)} cases, ${String(Math.round((Date.now() - started) / 1000))} s, ${String(megabytes)} MB\n`,
    );
  },
});
process.stdout.write(`${told(truth).join("\n")}, ${String(Math.round((Date.now() - started) / 1000))} s\n`);
