/** The kinds of objects in a REST contract whose structure is checked; keys of `schema/openapi-structure.json`. */
export type StructureKind =
  | "contract"
  | "schema"
  | "operation"
  | "pathItem"
  | "parameter"
  | "header"
  | "requestBody"
  | "responses"
  | "response"
  | "mediaType"
  | "callback"
  | "authScheme";
