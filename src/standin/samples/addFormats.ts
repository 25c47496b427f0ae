import type { Ajv2020 } from "ajv/dist/2020.js";
import addFormatsModule from "ajv-formats";

/** Adds the usual formats to a validator. The module's own types are for another module system. */
export const addFormats = addFormatsModule as unknown as (ajv: Ajv2020) => void;
