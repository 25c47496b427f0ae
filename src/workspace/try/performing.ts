import type { ModuleImporter } from "../files/moduleImporter.js";

/** One request with its response. */
export interface Exchange {
  readonly method: string;
  readonly url: string;
  readonly headers: readonly (readonly [string, string])[];
  /** The text that was sent. A body that is not text is described. */
  readonly body: string | undefined;
  /** Undefined if there was no response. */
  readonly status: number | undefined;
  readonly answerType: string | undefined;
}

/** The failure of a call, with the parts that can be shown. */
export interface CallFailure extends Error {
  readonly call: string;
  readonly status: number | string;
  readonly httpStatus?: number;
  readonly body?: unknown;
  readonly errors?: readonly unknown[];
  readonly data?: unknown;
}

/** The result of a call. */
export interface Performed {
  readonly exchanges: readonly Exchange[];
  readonly elapsedMs: number;
  readonly outcome:
    | { readonly ok: true; readonly answer: unknown; readonly isCut: boolean }
    | { readonly ok: false; readonly failure: CallFailure };
}

/** The input of a call. */
export interface Performing {
  readonly importer: ModuleImporter;
  readonly baseUrl: string;
  readonly fetch: (request: Request) => Promise<Response>;
  readonly auth: Readonly<Record<string, string>>;
  readonly headers: Readonly<Record<string, string>>;
  readonly standing: Readonly<Record<string, unknown>>;
  readonly values: Readonly<Record<string, unknown>>;
}
