// Fetches and checks the compilers of SDKs in other languages, in .toolchains, and reports what it found. With --check
// nothing is fetched, and the exit code is 1 if something is missing.
import { execFileSync } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { swiftToolchain } from "./swiftToolchain.mjs";

const root = fileURLToPath(new URL("..", import.meta.url));
const onlyChecks = process.argv.includes("--check");
const folder = join(root, ".toolchains/kotlin");
const { compiler, libraries, oldest } = JSON.parse(
  readFileSync(join(root, "test/support/kotlin/versions.json"), "utf8"),
);

/** The first line of a command's version; undefined if the command is missing. */
function versionOf(command, ...args) {
  try {
    const text = execFileSync(command, args, { encoding: "utf8", stdio: ["ignore", "pipe", "pipe"] });
    return text
      .split("\n")
      .find((line) => line.trim() !== "")
      ?.trim();
  } catch {
    return undefined;
  }
}

/** A build file that makes Maven fetch some artifacts with their dependencies. */
function buildFile(artifacts) {
  const dependencies = artifacts.map((artifact) => {
    const [group, name, version] = artifact.split(":");
    return `<dependency><groupId>${group}</groupId><artifactId>${name}</artifactId><version>${version}</version></dependency>`;
  });
  return `<project xmlns="http://maven.apache.org/POM/4.0.0"><modelVersion>4.0.0</modelVersion><groupId>toolchain</groupId><artifactId>toolchain</artifactId><version>1</version><dependencies>${dependencies.join("")}</dependencies></project>\n`;
}

function fetchLibraries(into, artifacts) {
  mkdirSync(into, { recursive: true });
  const pom = join(into, "pom.xml");
  const text = buildFile(artifacts);
  if (existsSync(pom) && readFileSync(pom, "utf8") === text && jarsOf(into).length > 0) return;
  writeFileSync(pom, text);
  execFileSync(
    "mvn",
    ["-q", "-B", "-f", pom, "dependency:copy-dependencies", `-DoutputDirectory=${join(into, "jars")}`],
    {
      stdio: ["ignore", "inherit", "inherit"],
    },
  );
}

function jarsOf(into) {
  const jars = join(into, "jars");
  return existsSync(jars) ? readdirSync(jars).filter((file) => file.endsWith(".jar")) : [];
}

function fetchCompiler() {
  const manifest = join(folder, "node_modules/kotlin-compiler/package.json");
  if (existsSync(manifest) && JSON.parse(readFileSync(manifest, "utf8")).version === compiler) return;
  mkdirSync(folder, { recursive: true });
  writeFileSync(join(folder, "package.json"), '{ "private": true }\n');
  execFileSync(
    "npm",
    ["install", `kotlin-compiler@${compiler}`, "--no-audit", "--no-fund", "--no-package-lock", "--silent"],
    { cwd: folder, stdio: ["ignore", "inherit", "inherit"] },
  );
}

const java = versionOf("java", "--version");
const maven = versionOf("mvn", "--version");
console.log(`JDK: ${java ?? "missing"}`);
console.log(`Maven: ${maven ?? "missing"}`);
if (java && maven && !onlyChecks) {
  fetchCompiler();
  fetchLibraries(join(folder, "current"), libraries);
  fetchLibraries(join(folder, "oldest"), oldest);
}
const hasCompiler = existsSync(join(folder, "node_modules/kotlin-compiler/lib/kotlin-compiler.jar"));
console.log(`Kotlin compiler: ${hasCompiler ? compiler : "missing"}`);
for (const name of ["current", "oldest"])
  console.log(`Kotlin libraries, ${name}: ${String(jarsOf(join(folder, name)).length)} jars`);
const isWhole =
  java && maven && hasCompiler && ["current", "oldest"].every((name) => jarsOf(join(folder, name)).length > 0);
if (!isWhole) {
  console.log("Not everything is there: SDKs in Kotlin are printed, and not compiled.");
  process.exitCode = 1;
}
const swift = swiftToolchain(join(root, ".toolchains/swift"), onlyChecks);
console.log(`Swift compiler: ${swift ?? "missing"}`);
if (!swift) {
  console.log("SDKs in Swift are printed, and not compiled.");
  process.exitCode = 1;
}
