/** The file in which plug-ins of editors look for the schema and the queries of a project. */
export const editorsPath = ".graphqlrc.yml";
