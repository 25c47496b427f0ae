import { printCoordinate, type Coordinate } from "../../../../core/use/coordinate.js";
import type { SourceFile } from "../../source/declared.js";
import type { KnownClass, KnownFunction } from "../../source/knownProgram.js";
import type { SdkModel } from "../../source/sdkModel.js";

/** What the source of a Swift SDK shows about names in JSON, and about parts that belong together. */
export class SwiftSdk implements SdkModel {
  readonly namespace: string;
  /** The JSON names of records' properties, by type and property: "Berth.note". */
  private readonly wire = new Map<string, string>();
  /** The values of enums' constants: "BerthStatus.free". */
  private readonly values = new Map<string, string>();
  /** The names of schemes by the parameter of the credentials. */
  private readonly schemes = new Map<string, string>();
  private readonly calls = new Set<string>();
  /** The type of the connection, with the SDK's own prefix. */
  private readonly connection: string;
  private readonly files: ReadonlySet<SourceFile>;

  /**
   * @param connect the type of the connection, without the SDK's own prefix
   * @param files the SDK's files of one contract, with their texts
   */
  constructor(
    readonly connect: string,
    files: readonly { readonly file: SourceFile; readonly text: string }[],
  ) {
    this.files = new Set(files.map(({ file }) => file));
    const [space] = files.flatMap(({ file }) =>
      file.declared.classes.filter(({ classes }) => classes.some(({ name }) => name === "Forms")),
    );
    this.namespace = space?.name ?? "";
    const tops = files.flatMap(({ file }) => file.declared.classes.map(({ name }) => name));
    this.connection = tops.find((name) => name === connect) ?? tops.find((name) => name.endsWith(connect)) ?? connect;
    for (const { file, text } of files) {
      for (const { name, receiver } of file.declared.functions)
        if (receiver?.path.at(-1)?.text === this.connection) this.calls.add(name);
      this.readForms(text);
      this.readChoices(file, text);
      const [, credentials = ""] = /^ +all = \[([^]*?)\]\n/m.exec(text) ?? [];
      for (const [, wire = "", member = ""] of credentials.matchAll(/"((?:[^"\\]|\\.)*)": `?([\p{L}\p{Nd}_]+)`?/gu))
        this.schemes.set(member, unescaped(wire));
    }
  }

  /**
   * `let note = try fields.optional("note", …)` for reading a record, `fields.sent("note", value.note, …)` for writing
   * one.
   */
  private readForms(text: string): void {
    const forms =
      /static func (?:read|write)\w+\(_ \w+: ([\w.]+)\)(?: throws\([\w.]+\))? -> ([\w.]+) \{\n([^]*?)^ {2}\}/gm;
    for (const [, taken = "", given = "", body = ""] of text.matchAll(forms)) {
      const type = this.own(given.endsWith(".JSON") ? taken : given);
      if (type === undefined) continue;
      const read = /let `?([\p{L}\p{Nd}_]+)`? = try \w+\.\w+\(\s*"((?:[^"\\]|\\.)*)"/gu;
      for (const [, property = "", wire = ""] of body.matchAll(read))
        this.wire.set(`${type}.${property}`, unescaped(wire));
      const written = /\bfields\.\w+\(\s*"((?:[^"\\]|\\.)*)",\s*value\.`?([\p{L}\p{Nd}_]+)`?/gu;
      for (const [, wire = "", property = ""] of body.matchAll(written))
        this.wire.set(`${type}.${property}`, unescaped(wire));
      const chosen = /case \.`?(\w+)`?\(let value\):[^\n]*?"((?:[^"\\]|\\.)*)"/g;
      for (const [, property = "", wire = ""] of body.matchAll(chosen))
        this.wire.set(`${type}.${property}`, unescaped(wire));
    }
  }

  private readChoices({ declared }: SourceFile, text: string): void {
    const open = /static var `?([\p{L}\p{Nd}_]+)`?: ([\w.]+) \{ \.init\(rawValue: (.*)\) \}$/gmu;
    for (const [, constant = "", type = "", value = ""] of text.matchAll(open))
      this.values.set(`${this.own(type) ?? type}.${constant}`, plain(value));
    for (const { name, kind } of declared.classes) {
      if (kind !== "enum") continue;
      const start = text.search(new RegExp(`enum ${name.split(".").at(-1) ?? ""}\\b`));
      const body = text.slice(start, text.indexOf("\n  }\n", start));
      for (const [, constant = "", value = ""] of body.matchAll(/^ +case `?([\p{L}\p{Nd}_]+)`? = (.*)$/gmu))
        this.values.set(`${this.own(name) ?? name}.${constant}`, plain(value));
    }
  }

  /** A name inside the contract's namespace. */
  private own(name: string): string | undefined {
    return name.startsWith(`${this.namespace}.`) ? name.slice(this.namespace.length + 1) : undefined;
  }

  coordinateOf({ name, isSdk }: KnownClass): Coordinate | undefined {
    if (!isSdk) return undefined;
    if (name === this.connection) return printCoordinate(this.connect);
    // `HarbourConnection.Auth`
    if (name.startsWith(`${this.connection}.`))
      return printCoordinate(`${this.connect.replace(/Connection$/, "")}${name.slice(this.connection.length + 1)}`);
    const own = this.own(name);
    return own === undefined ? undefined : printCoordinate(own);
  }

  chosenField(): undefined {
    return undefined;
  }

  member(owner: string, property: string): string {
    return this.wire.get(`${owner}.${property}`) ?? this.wire.get(`${owner}._${property}`) ?? property;
  }

  scheme(parameter: string): string {
    return this.schemes.get(parameter) ?? parameter;
  }

  constant(owner: string, name: string): string | undefined {
    return this.values.get(`${owner}.${name}`);
  }

  isCall({ text, home }: KnownFunction): boolean {
    return this.files.has(home.file) && text.receiver?.path.at(-1)?.text === this.connection;
  }

  callOf(name: string): string {
    const base = name.replace(/(?:Items|As[A-Z]\w*)$/, "");
    return base !== name && this.calls.has(base) ? base : name;
  }
}

function plain(value: string): string {
  return value.startsWith('"') ? unescaped(value.slice(1, -1)) : value.replaceAll("_", "");
}

function unescaped(text: string): string {
  return text
    .replace(/\\u\{([0-9a-fA-F]+)\}/g, (_, code: string) => String.fromCodePoint(Number.parseInt(code, 16)))
    .replace(/\\(.)/g, (_, character: string) => ({ n: "\n", r: "\r", t: "\t" })[character] ?? character);
}
