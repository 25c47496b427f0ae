import type { Layer, Outgoing } from "./connection.js";

/** The progress of an upload, in bytes. */
export interface UploadProgress {
  readonly sent: number;
  /** Undefined if the platform does not know it. */
  readonly total: number | undefined;
}

/** The part of XMLHttpRequest that is needed here. */
interface Transfer {
  readonly upload: { onprogress: ((event: ProgressStep) => void) | null };
  readonly status: number;
  readonly statusText: string;
  readonly response: unknown;
  responseType: string;
  withCredentials: boolean;
  onload: (() => void) | null;
  onerror: (() => void) | null;
  open(method: string, url: string): void;
  setRequestHeader(name: string, value: string): void;
  getAllResponseHeaders(): string;
  send(body: unknown): void;
  abort(): void;
}

interface ProgressStep {
  readonly loaded: number;
  readonly total: number;
  readonly lengthComputable: boolean;
}

/**
 * Reports how much of a request's body has been sent, which `fetch` cannot do. The requests use the platform's
 * XMLHttpRequest, as the innermost layer. Three kinds of requests use `fetch` and report no progress: those without a
 * body, those with a stream as body, and those with a key in a header of its own, which XMLHttpRequest would send along
 * a redirect.
 *
 * @param onProgress called repeatedly, with the request that it is about
 * @param withCredentials whether cookies are sent to another origin too
 */
export function uploadProgress(
  onProgress: (progress: UploadProgress, request: Outgoing) => void,
  withCredentials = false,
): Layer {
  return (request, next) => {
    const { XMLHttpRequest: Platform } = globalThis as { readonly XMLHttpRequest?: new () => Transfer };
    const { body, duplex, hasKey } = request;
    if (!Platform || body === undefined || body === null || duplex !== undefined || hasKey === true)
      return next(request);
    return transferred(new Platform(), request, onProgress, withCredentials);
  };
}

function transferred(
  transfer: Transfer,
  request: Outgoing,
  onProgress: (progress: UploadProgress, request: Outgoing) => void,
  withCredentials: boolean,
): Promise<Response> {
  const { method, url, headers, body, signal } = request;
  return new Promise<Response>((resolve, reject) => {
    const stop = (): void => {
      transfer.abort();
      reject(new Error("the upload was cancelled"));
    };
    transfer.open(method, url);
    transfer.responseType = "arraybuffer";
    transfer.withCredentials = withCredentials;
    headers.forEach((value, name) => {
      transfer.setRequestHeader(name, value);
    });
    transfer.upload.onprogress = ({ loaded, total, lengthComputable }) => {
      onProgress({ sent: loaded, total: lengthComputable ? total : undefined }, request);
    };
    transfer.onload = () => {
      const { status, statusText, response } = transfer;
      const isBare = status === 204 || status === 205 || status === 304;
      resolve(
        new Response(isBare ? null : (response as ArrayBuffer), { status, statusText, headers: received(transfer) }),
      );
    };
    transfer.onerror = () => {
      reject(new Error("the upload was interrupted"));
    };
    signal.addEventListener("abort", stop);
    if (signal.aborted) stop();
    else transfer.send(body);
  });
}

function received(transfer: Transfer): Headers {
  const headers = new Headers();
  for (const line of transfer.getAllResponseHeaders().split("\r\n")) {
    const at = line.indexOf(":");
    if (at > 0) headers.append(line.slice(0, at), line.slice(at + 1).trim());
  }
  return headers;
}
