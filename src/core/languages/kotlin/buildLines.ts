import { codeBlock } from "../pages/markdown.js";
import type { Placement } from "./settings.js";

/** The compiler that SDKs are tested with. */
const kotlinVersion = "2.4.20";

/** The dependencies of an SDK, with the tested versions. */
const dependencies = [
  ["com.squareup.okhttp3", "okhttp", "okhttp-jvm", "5.3.2"],
  ["org.jetbrains.kotlinx", "kotlinx-coroutines-core", "kotlinx-coroutines-core-jvm", "1.10.2"],
  ["org.jetbrains.kotlinx", "kotlinx-serialization-json", "kotlinx-serialization-json-jvm", "1.9.0"],
] as const;

/** The placement if the build of the app is unknown. */
const unplaced: Placement = { source: "path/to/this/folder" };

/** Returns the part of an SDK's README about building it in an app. */
export function buildingPart(placement: Placement | undefined): string {
  return (
    "Gradle (the SDK's tests do not run these lines):\n\n" +
    `${codeBlock(gradleLines(placement), "kotlin")}\nMaven:\n\n${codeBlock(mavenLines(placement), "xml")}\n`
  );
}

function gradleLines(placement: Placement | undefined): string {
  const { source, sourceRoot, project } = placement ?? unplaced;
  const folder =
    sourceRoot !== undefined ? "" : `\nkotlin.sourceSets["main"].kotlin.srcDir(${JSON.stringify(source)})\n`;
  const workingDir =
    project === undefined || project === "" ? "" : `    workingDir = file(${JSON.stringify(project)})\n`;
  return (
    `dependencies {\n${gradleDependencies("implementation")}}\n${folder}\n` +
    `val generateSdk by tasks.registering(Exec::class) {\n${workingDir}    commandLine("npx", "rhema", "generate")\n}\n` +
    "tasks.withType<org.jetbrains.kotlin.gradle.tasks.KotlinCompile>().configureEach { dependsOn(generateSdk) }"
  );
}

function gradleDependencies(kind: string): string {
  return dependencies.map(([group, name, , version]) => `    ${kind}("${group}:${name}:${version}")\n`).join("");
}

function mavenLines(placement: Placement | undefined): string {
  const { source, sourceRoot, project } = placement ?? unplaced;
  const folders = sourceRoot !== undefined ? [] : ["src/main/kotlin", source];
  const directory =
    project === undefined || project === "" ? [] : [`        <workingDirectory>${xmlText(project)}</workingDirectory>`];
  const generate = [
    "    <plugin>",
    "      <groupId>org.codehaus.mojo</groupId>",
    "      <artifactId>exec-maven-plugin</artifactId>",
    "      <version>3.5.0</version>",
    "      <configuration>",
    "        <executable>npx</executable>",
    "        <arguments>",
    "          <argument>rhema</argument>",
    "          <argument>generate</argument>",
    "        </arguments>",
    ...directory,
    "      </configuration>",
    "      <executions>",
    "        <execution>",
    "          <phase>generate-sources</phase>",
    "          <goals>",
    "            <goal>exec</goal>",
    "          </goals>",
    "        </execution>",
    "      </executions>",
    "    </plugin>",
  ];
  const sourceDirectory = sourceRoot === undefined ? [] : [`  <sourceDirectory>${sourceRoot}</sourceDirectory>`];
  return [
    ...mavenDependencies,
    "<build>",
    ...sourceDirectory,
    "  <plugins>",
    ...generate,
    ...compilerPlugin(folders),
    "  </plugins>",
    "</build>",
  ].join("\n");
}

const mavenDependencies = [
  "<dependencies>",
  ...[["org.jetbrains.kotlin", "", "kotlin-stdlib", kotlinVersion], ...dependencies].flatMap(
    ([group = "", , name = "", version = ""]) => [
      "  <dependency>",
      `    <groupId>${group}</groupId>`,
      `    <artifactId>${name}</artifactId>`,
      `    <version>${version}</version>`,
      "  </dependency>",
    ],
  ),
  "</dependencies>",
];

/** @param folders the source folders, if they are not Maven's default */
function compilerPlugin(folders: readonly string[]): string[] {
  return [
    "    <plugin>",
    "      <groupId>org.jetbrains.kotlin</groupId>",
    "      <artifactId>kotlin-maven-plugin</artifactId>",
    `      <version>${kotlinVersion}</version>`,
    "      <configuration>",
    "        <jvmTarget>1.8</jvmTarget>",
    ...(folders.length === 0
      ? []
      : [
          "        <sourceDirs>",
          ...folders.map((each) => `          <sourceDir>${xmlText(each)}</sourceDir>`),
          "        </sourceDirs>",
        ]),
    "      </configuration>",
    "      <executions>",
    "        <execution>",
    "          <goals>",
    "            <goal>compile</goal>",
    "          </goals>",
    "        </execution>",
    "      </executions>",
    "    </plugin>",
  ];
}

function runningPlugin(main: string): string[] {
  return [
    "      <plugin>",
    "        <groupId>org.codehaus.mojo</groupId>",
    "        <artifactId>exec-maven-plugin</artifactId>",
    "        <version>3.5.0</version>",
    "        <configuration>",
    `          <mainClass>${main}</mainClass>`,
    "        </configuration>",
    "      </plugin>",
  ];
}

function xmlText(text: string): string {
  return text.replace(/[&<>]/g, (character) => ({ "&": "&amp;", "<": "&lt;" })[character] ?? "&gt;");
}

/**
 * Returns the build files of an SDK that is a module of its own, by name: for Gradle in Kotlin and for Maven.
 *
 * @param namespace the SDK's package
 * @param sdk the SDK's name in the configuration
 * @param main the main class, if the module is a program
 */
export function buildFiles(namespace: string, sdk: string, main?: string): Map<string, string> {
  const gradle =
    "// Written by rhema generate. The surrounding project sets the version of the plug-in.\n" +
    `plugins {\n    kotlin("jvm")\n    \`java-library\`\n}\n\ndependencies {\n${gradleDependencies("api")}}\n\n` +
    "java {\n    sourceCompatibility = JavaVersion.VERSION_1_8\n    targetCompatibility = JavaVersion.VERSION_1_8\n}\n\n" +
    "kotlin {\n    explicitApi()\n    compilerOptions {\n        jvmTarget.set(org.jetbrains.kotlin.gradle.dsl.JvmTarget.JVM_1_8)\n    }\n}\n";
  const maven = [
    '<?xml version="1.0" encoding="UTF-8"?>',
    "<!-- Written by rhema generate. -->",
    '<project xmlns="http://maven.apache.org/POM/4.0.0">',
    "  <modelVersion>4.0.0</modelVersion>",
    `  <groupId>${namespace}</groupId>`,
    `  <artifactId>${sdk}</artifactId>`,
    "  <version>1.0.0</version>",
    "  <properties>",
    "    <project.build.sourceEncoding>UTF-8</project.build.sourceEncoding>",
    "  </properties>",
    ...mavenDependencies.map((line) => `  ${line}`),
    "  <build>",
    "    <sourceDirectory>src/main/kotlin</sourceDirectory>",
    "    <plugins>",
    ...(main === undefined ? [] : runningPlugin(main)),
    ...compilerPlugin([]).map((line) => `  ${line}`),
    "    </plugins>",
    "  </build>",
    "</project>",
    "",
  ].join("\n");
  return new Map([
    ["build.gradle.kts", gradle],
    ["pom.xml", maven],
  ]);
}
