import { supplied, type CallOptions, type Connection, type Credentials, type RenewableSupplier } from "./connection.js";
import type { Exchanged } from "./exchange.js";
import { failure } from "./failure.js";

/** Adds the credentials of a request in the way that their schemes require. */
export type Authorize = (into: Credentials) => Promise<void>;

/**
 * Sends a request with the first alternative of credentials that the app supplies. If the server rejects a credential
 * that can be renewed, the request is sent once more.
 *
 * @param auth alternatives, each a list of schemes that are needed together
 * @param attempt sends the request once
 * @returns the response and what belongs to it, before its body is read
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
    // The functions of the app can throw.
    exchanged.done();
    throw error;
  }
}

/** A credential that was sent, and the supplier it came from. */
interface Used {
  readonly supplier: Partial<RenewableSupplier>;
  readonly credential: string;
}

/**
 * Adds the credentials of the first alternative that the app supplies.
 *
 * @param auth alternatives, each a list of schemes that are needed together
 * @throws the failure of the call if a credential is not valid in a header
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
      // The platform's error contains the credential.
      throw failure(into.call, `the credential \`${name}\` is not valid in a header`, { status: "unreachable" });
    }
  }
  return used;
}
