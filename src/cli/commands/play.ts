export async function playCommand(..._: unknown[]): Promise<number> { return Promise.resolve(0); }
