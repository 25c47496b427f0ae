import { printCoordinate, type Coordinate } from "../../../../core/use/coordinate.js";
import type { SourceFile } from "../../source/declared.js";
import type { KnownClass, KnownFunction } from "../../source/knownProgram.js";
import type { SdkModel } from "../../source/sdkModel.js";

/** What the source of a Kotlin SDK shows about names in JSON, and about parts that belong together. */
export class KotlinSdk implements SdkModel {
  /** The JSON names of records' properties, by class and property: "Berth.note". */
  private readonly wire = new Map<string, string>();
  /** The same by the property alone, for interfaces: in all responses to queries, a property has one JSON name. */
  private readonly wireOfAny = new Map<string, string>();
  /** The values of enums' constants: "BerthStatus.Free". */
  private readonly values = new Map<string, string>();
  /** The names of schemes by the parameter of the credentials' class. */
  private readonly schemes = new Map<string, string>();
  private readonly functions = new Set<string>();
  /** Inputs of which exactly one field is given, with that field, by class: "BerthBy.Number" gives "BerthBy.number". */
  private readonly chosen = new Map<string, { readonly input: string; readonly field: string }>();

  /**
   * @param connect the class of the connection
   * @param files the SDK's files of one contract, with their texts
   */
  constructor(
    readonly connect: string,
    readonly namespace: string,
    files: readonly { readonly file: SourceFile; readonly text: string }[],
  ) {
    for (const { file, text } of files) {
      for (const { name } of file.declared.functions) this.functions.add(name);
      this.readForms(text);
      this.readChoices(file, text);
      for (const [, wire = "", member = ""] of text.matchAll(/"((?:[^"\\]|\\.)*)" to `?([\p{L}\p{Nd}_]+)`?,$/gmu))
        this.schemes.set(member, unescaped(wire));
    }
  }

  /** `note = fields.optional("note", …)` for reading a record, `optional("note", value.note, …)` for writing one. */
  private readForms(text: string): void {
    const forms = /^internal object [^\n]*? : (?:Form|Reader|Writer)<([\w.]+)> \{\n([^]*?)^\}/gm;
    for (const [, type = "", body = ""] of text.matchAll(forms)) {
      const read = /`?([\p{L}\p{Nd}_]+)`? = fields\.\w+\("((?:[^"\\]|\\.)*)"/gu;
      for (const [, property = "", wire = ""] of body.matchAll(read)) {
        this.wire.set(`${type}.${property}`, unescaped(wire));
        this.wireOfAny.set(property, unescaped(wire));
      }
      const written = /\b(?:required|optional|sent)\("((?:[^"\\]|\\.)*)", value\.`?([\p{L}\p{Nd}_]+)`?/gu;
      for (const [, wire = "", property = ""] of body.matchAll(written))
        this.wire.set(`${type}.${property}`, unescaped(wire));
      const chosen = /\bis ([\w.]+) -> required\("((?:[^"\\]|\\.)*)", value\./g;
      for (const [, own = "", wire = ""] of body.matchAll(chosen))
        this.chosen.set(own, { input: type, field: `${type}.${unescaped(wire)}` });
    }
  }

  private readChoices({ declared }: SourceFile, text: string): void {
    for (const { name, kind, companions } of declared.classes) {
      if (kind !== "enum" && companions.length === 0) continue;
      const open = /public val (?:[\w.]+\.)?`?([\p{L}\p{Nd}_]+)`?: [\w.]+ get\(\) = [\w.]+\((.*)\)$/gmu;
      const closed = /^ {4}`?([\p{L}\p{Nd}_]+)`?\((.*)\),$/gmu;
      for (const [, constant = "", value = ""] of text.matchAll(kind === "enum" ? closed : open))
        this.values.set(`${name}.${constant}`, value.startsWith('"') ? unescaped(value.slice(1, -1)) : value);
    }
  }

  /** Returns a class as a coordinate; undefined if it is not one of the contract's. */
  coordinateOf({ name, isSdk }: KnownClass): Coordinate | undefined {
    if (!isSdk || !name.startsWith(`${this.namespace}.`)) return undefined;
    const own = name.slice(this.namespace.length + 1);
    return printCoordinate(this.chosen.get(own)?.input ?? own);
  }

  /** Returns the field of an input for which a class exists; undefined for any other class. */
  chosenField({ name }: KnownClass): string | undefined {
    return this.chosen.get(name.slice(this.namespace.length + 1))?.field;
  }

  isContractFile({ package: own }: SourceFile): boolean {
    return own === this.namespace;
  }

  /** Returns the JSON name of a property. */
  member(owner: string, property: string): string {
    return this.wire.get(`${owner}.${property}`) ?? this.wireOfAny.get(property) ?? property;
  }

  scheme(parameter: string): string {
    return this.schemes.get(parameter) ?? parameter;
  }

  /** Returns the value of an enum's constant; undefined if there is none with that name. */
  constant(owner: string, name: string): string | undefined {
    return this.values.get(`${owner}.${name}`);
  }

  isCall({ text, home }: KnownFunction): boolean {
    return home.file.isSdk && this.isContractFile(home.file) && text.receiver !== undefined;
  }

  /** Returns the call of a function for its pages, or for another media type. */
  callOf(name: string): string {
    const base = name.replace(/(?:Items|As[A-Z]\w*)$/, "");
    return base !== name && this.functions.has(base) ? base : name;
  }
}

function unescaped(text: string): string {
  return text
    .replace(/\\u([0-9a-fA-F]{4})/g, (_, code: string) => String.fromCharCode(Number.parseInt(code, 16)))
    .replace(/\\(.)/g, (_, character: string) => ({ n: "\n", r: "\r", t: "\t" })[character] ?? character);
}
