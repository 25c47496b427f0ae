import { eachChild } from "../../../contract/childReferences.js";
import type { Reference, Shape } from "../../../contract/model.js";
import { decodedLeaf, nothingDecoded } from "../../../sdk/lower/values/decodedLeaf.js";
import { printTypes } from "./printShapes.js";
import type { TypePrinter } from "./printType.js";

/** Types before anything is decoded, for code that uses the JSON without the SDK. */
export interface OnWire {
  /** Prints references as they are in JSON. */
  readonly printer: TypePrinter;
  /** The types that differ there, for the module that names them. They are not exported. */
  readonly declarations: string;
}

/** The key of the references themselves. No type has it. */
const root = "";

/** Returns how some references look in JSON; undefined if nothing in them is decoded. */
export function onWire(roots: readonly Reference[], printer: TypePrinter): OnWire | undefined {
  const seen = new Set<string>();
  const holders = new Map<string, string[]>();
  const changed = new Set<string>();
  const visit = (holder: string, shape: Shape): void => {
    if (decodedLeaf(shape, printer.settings)) changed.add(holder);
    for (const child of childrenOf(shape, printer)) {
      if (child.kind !== "named") {
        visit(holder, child);
        continue;
      }
      holders.set(child.key, [...(holders.get(child.key) ?? []), holder]);
      const target = printer.types.get(child.key)?.shape;
      if (target === undefined || seen.has(child.key)) continue;
      seen.add(child.key);
      visit(child.key, target);
    }
  };
  for (const item of roots) visit(root, { kind: "list", item });
  // A set that grows during the loop is read to its end.
  for (const key of changed) for (const holder of holders.get(key) ?? []) changed.add(holder);
  if (!changed.delete(root)) return undefined;
  const taken = new Set(printer.names.values());
  const own = new Map(
    [...changed].map((key) => {
      let name = `${printer.names.get(key) ?? key}OnWire`;
      while (taken.has(name)) name += "_";
      return [key, name];
    }),
  );
  const local = new Set(own.values());
  const wirePrinter: TypePrinter = {
    ...printer,
    names: new Map([...printer.names, ...own]),
    settings: { ...printer.settings, ...nothingDecoded },
    uses: {
      module: (module, isValue) => {
        printer.uses.module(module, isValue);
      },
      type: (identifier) => {
        if (!local.has(identifier)) printer.uses.type(identifier);
      },
    },
  };
  const types = [...changed].flatMap((key) => printer.types.get(key) ?? []);
  return { printer: wirePrinter, declarations: unexported(printTypes(types, wirePrinter)) };
}

/** Returns declarations that only their own module sees. */
export function unexported(declarations: string): string {
  return declarations.replace(/^export (?=interface |type )/gm, "");
}

/** The shapes inside a shape, with those of its sealed fragments. */
function childrenOf(shape: Shape, printer: TypePrinter): Shape[] {
  const children: Shape[] = [];
  eachChild(shape, ({ shape: child }) => children.push(child));
  const seals = shape.kind === "record" ? (shape.seals ?? []) : [];
  for (const { fragment } of seals) {
    const part = printer.sealed.get(fragment);
    if (part) children.push(part.shape);
  }
  return children;
}
