import type { ModuleImporter } from "../files/moduleImporter.js";

/** One exchange as it went over the wire. */
export interface Exchange {
  readonly method: string;
  readonly url: string;
  readonly headers: readonly (readonly [string, string])[];
  /** Text that was sent; what is no text is described. */
  readonly body: string | undefined;
  /** Undefined when no answer came. */
  readonly status: number | undefined;
  readonly answerType: string | undefined;
}

/** What a call fails with, as far as everybody may look at it. */
export interface CallFailure extends Error {
  readonly call: string;
  readonly status: number | string;
  readonly httpStatus?: number;
  readonly body?: unknown;
  readonly errors?: readonly unknown[];
  readonly data?: unknown;
}

/** What came of a call that was performed. */
export interface Performed {
  readonly exchanges: readonly Exchange[];
  readonly elapsedMs: number;
  readonly outcome:
    | { readonly ok: true; readonly answer: unknown; readonly isCut: boolean }
    | { readonly ok: false; readonly failure: CallFailure };
}

/** What a call is performed with. */
export interface Performing {
  readonly importer: ModuleImporter;
  readonly baseUrl: string;
  readonly fetch: (request: Request) => Promise<Response>;
  readonly auth: Readonly<Record<string, string>>;
  readonly headers: Readonly<Record<string, string>>;
  readonly standing: Readonly<Record<string, unknown>>;
  readonly values: Readonly<Record<string, unknown>>;
}
