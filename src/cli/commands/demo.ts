export async function demoCommand(..._: unknown[]): Promise<number> { return Promise.resolve(0); }
