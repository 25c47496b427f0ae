import type { Layer, Outgoing } from "./connection.js";

/** How far an upload is, in bytes. */
export interface UploadProgress {
  readonly sent: number;
  /** Undefined where the platform does not know it. */
  readonly total: number | undefined;
}

/** As much of an XMLHttpRequest as is needed. */
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
 * Tells how far the bodies of requests are sent, which `fetch` cannot: they go through the platform's XMLHttpRequest, as
 * the innermost layer. Without progress, by `fetch`, go requests without a body, a body that is a stream, and requests
 * with a key in a header of its own, which XMLHttpRequest would send along a redirect.
 *
 * @param onProgress told now and then, with the request that it is about
 * @param withCredentials whether cookies go to another origin too
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
      reject(new Error("the upload was given up"));
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
      reject(new Error("the upload broke off"));
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
