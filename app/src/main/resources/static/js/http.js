import { LANGUAGE, phrase } from './language.js';
/** Requests to Sarnik's JSON interface. A refusal becomes a Refusal whose message is a sentence for people. */

export class Refusal extends Error {
  constructor(status, sentence) {
    super(sentence);
    this.status = status;
  }
}

const token = () => document.querySelector('meta[name="_csrf"]')?.content ?? '';

/** Takes the token of whoever is signed in now, who may have signed in anew on another page. */
export async function renewToken() {
  const page = await fetch(window.location.pathname, { headers: { Accept: 'text/html' } }).catch(() => null);
  const meta = document.querySelector('meta[name="_csrf"]');
  if (!page?.ok || !meta) return;
  const now = new DOMParser().parseFromString(await page.text(), 'text/html').querySelector('meta[name="_csrf"]');
  if (now) meta.content = now.content;
}

/**
 * @param {string} method
 * @param {string} address
 * @param {{body?: any, type?: string, headers?: Object, signal?: AbortSignal, keepalive?: boolean, onProgress?:
 *     (going: {words: string, done: number, all: number}, stop: () => void) => void}} options
 *   body is sent as JSON; keepalive lets it arrive after the page has been left; onProgress is told how far work has
 * come that takes longer
 * @returns {Promise<any>} the JSON of the answer, or null where it has none
 */
export async function ask(
  method,
  address,
  { body, type = 'application/json', headers = {}, signal, keepalive = false, onProgress } = {},
) {
  // A page that was carried away has its answers beside it.
  if (globalThis.sarnikCarried) return globalThis.sarnikCarried.ask(method, address, { body, signal });
  const init = {
    method,
    signal,
    keepalive,
    headers: { Accept: 'application/json', 'Accept-Language': LANGUAGE, ...headers },
  };
  if (method !== 'GET') init.headers['X-CSRF-TOKEN'] = token();
  if (body !== undefined) {
    init.headers['Content-Type'] = type;
    init.body = JSON.stringify(body);
  }
  let answer;
  try {
    answer = await fetch(address, init);
  } catch (failed) {
    if (failed.name === 'AbortError') throw failed;
    throw new Refusal(
      0,
      phrase('The server cannot be reached. What was kept is safe; check the connection and try again.'),
    );
  }
  return finished(answer, onProgress, signal);
}

/** How often a job is asked for, ms: the server itself waits a while before it says that it goes on. */
const PAUSE = 200;

/** The result of an answer; where it is a job that goes on, waits for it and tells how far it has come. */
async function finished(answer, onProgress, signal) {
  let last = answer;
  for (;;) {
    const json = read(last.status, await last.text());
    if (last.status !== 202 || !json?.job) return withRevision(json, last);
    onProgress?.(json, () => ask('DELETE', `/api/jobs/${json.job}`).catch(() => {}));
    await new Promise(resolve => {
      setTimeout(resolve, PAUSE);
    });
    last = await fetch(`/api/jobs/${json.job}`, {
      signal,
      headers: { Accept: 'application/json', 'Accept-Language': LANGUAGE },
    });
  }
}

/** An answer without content to a change of a revision gives the revision after it. */
function withRevision(json, answer) {
  const tag = answer.headers.get('ETag');
  return json === null && answer.status === 204 && tag ? { revision: Number(tag.replace(/\D/g, '')) } : json;
}

/** Asks for a file. @returns {Promise<Blob>} */
export async function askBlob(method, address, body) {
  const answer = await fetch(address, {
    method,
    headers: { 'Content-Type': 'application/json', 'Accept-Language': LANGUAGE, 'X-CSRF-TOKEN': token() },
    body: JSON.stringify(body),
  });
  if (answer.ok) return answer.blob();
  return read(answer.status, await answer.text());
}

/** Sends files, telling how far it has come. The answer carries `cancel()`. */
export function sendFiles(address, files, onProgress) {
  const request = new XMLHttpRequest();
  const promise = new Promise((resolve, reject) => {
    request.upload.onprogress = e => onProgress(e.loaded, e.total);
    request.onload = () => {
      try {
        resolve(read(request.status, request.responseText));
      } catch (refusal) {
        reject(refusal);
      }
    };
    request.onerror = () =>
      reject(
        new Refusal(0, phrase('The file could not be sent: the connection broke. Nothing was kept; choose it again.')),
      );
    request.onabort = () => reject(new Refusal(0, phrase('Stopped. Nothing was kept.')));
    const form = new FormData();
    for (const file of files) form.append('file', file);
    request.open('POST', address);
    request.setRequestHeader('X-CSRF-TOKEN', token());
    request.setRequestHeader('Accept', 'application/json');
    request.setRequestHeader('Accept-Language', LANGUAGE);
    request.send(form);
  });
  return { promise, cancel: () => request.abort() };
}

function read(status, text) {
  let json = null;
  try {
    json = text ? JSON.parse(text) : null;
  } catch {
    /* an answer that is no JSON has no sentence either */
  }
  if (status >= 200 && status < 300) return json;
  if (status === 401) throw new Refusal(401, phrase('You are signed out. Sign in again; what was kept is safe.'));
  if (status === 403) throw new Refusal(403, json?.detail ?? phrase('This is not open to you.'));
  throw new Refusal(status, json?.detail ?? phrase('The server could not answer. Try again.'));
}
