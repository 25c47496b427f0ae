import { supplied, type CallOptions, type Connection, type Credentials, type RenewableSupplier } from "./connection.js";
import type { Exchanged } from "./exchange.js";
import { failure } from "./failure.js";

/** Puts the credentials of a request where their schemes want them. */
export type Authorize = (into: Credentials) => Promise<void>;

/**
 * Sends a request with the first alternative of credentials that is supplied; once more when the server rejects one
 * that can be renewed. Gives what comes back before its body is read.
 *
 * @param auth alternatives of schemes needed together
 * @param attempt sends the request once
 */
export async function authorized(
  connection: Connection,
  auth: readonly (readonly string[])[],
  attempt: (authorize: Authorize) => Promise<Exchanged>,
  options: CallOptions | undefined,
  canRepeat = true,
): Promise<Exchanged> {
  let used: readonly Used[] = [];
  const authorize: Authorize = async (into) => {
    used = [...used, ...(await authorizeBy(connection, auth, into))];
  };
  let exchanged = await attempt(authorize);
  try {
    if (exchanged.response.status === 401 && canRepeat) {
      const renewed = await Promise.all(used.map(async ({ supplier, credential }) => supplier.renew?.(credential)));
      if (renewed.includes(true)) {
        exchanged.done();
        exchanged = await attempt(authorize);
      }
    }
    const { status, headers } = exchanged.response;
    options?.onAnswer?.({ status, headers });
    return exchanged;
  } catch (error) {
    // The app's own functions may throw.
    exchanged.done();
    throw error;
  }
}

/** A credential that was sent, and where it came from. */
interface Used {
  readonly supplier: Partial<RenewableSupplier>;
  readonly credential: string;
}

/**
 * Puts the credentials of the first alternative that is supplied where their schemes want them.
 *
 * @param auth alternatives of schemes needed together
 */
export async function authorizeBy(
  connection: Connection,
  auth: readonly (readonly string[])[],
  into: Credentials,
): Promise<Used[]> {
  const used: Used[] = [];
  const chosen = auth.find((schemes) => schemes.every((name) => connection.auth[name] !== undefined));
  for (const name of chosen ?? []) {
    const supplier = connection.auth[name] ?? "";
    const credential = await supplied(supplier);
    used.push({ supplier: supplier as Partial<RenewableSupplier>, credential });
    try {
      connection.schemes[name]?.(credential, into);
    } catch {
      // The platform's error holds the credential.
      throw failure(into.call, `the credential \`${name}\` cannot stand in a header`, { status: "unreachable" });
    }
  }
  return used;
}
