/** The file from which editor plug-ins read the schema and the queries of a project. */
export const editorsPath = ".graphqlrc.yml";
