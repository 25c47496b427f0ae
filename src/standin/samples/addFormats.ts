import type { Ajv2020 } from "ajv/dist/2020.js";
import addFormatsModule from "ajv-formats";

/** Teaches a validator the usual formats; the module's own types are those of another module system. */
export const addFormats = addFormatsModule as unknown as (ajv: Ajv2020) => void;
