import type { LanguageDescription } from "../../../src/core/languages/language.js";

/** The description of the toy language for reading configurations. */
export const description: LanguageDescription = {
  id: "toy",
  title: "Toy",
  settings: {
    shared: {
      choices: { values: ["open", "closed"], usual: "open" },
      unions: { values: ["open", "closed"], usual: "open" },
      dates: { values: ["text", "decoded"], usual: "text" },
    },
    own: { shout: { description: "Whether comments are in capitals.", type: "boolean" } },
  },
  scalar: { enum: ["words", "whole"] },
};
