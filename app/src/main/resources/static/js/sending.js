import { refuse } from './elements.js';
import { ask, sendFiles } from './http.js';

const by = id => document.getElementById(id);
const count = rows => rows.toLocaleString('en');
const megabytes = bytes => (bytes / 1e6).toFixed(1);

/**
 * Sends files and goes on to the page that looks at them; says how far it has come, and why they were refused.
 * @param {File[]} files of one shape
 * @param {number|null} dataset the dataset whose newer rows the files hold
 */
export async function bring(files, dataset = null) {
  refuse(by('refusal'), '');
  by('progress').hidden = false;
  const began = performance.now();
  const called = files.length === 1 ? files[0].name : `${files.length} files`;
  const sending = sendFiles(`/api/bring${dataset ? `?dataset=${dataset}` : ''}`, files, (sent, all) => {
    by('progress-bar').value = sent / all;
    const left = (((performance.now() - began) / 1000) * (all - sent)) / Math.max(1, sent);
    by('progress-words').textContent =
      sent < all
        ? `Sending ${called}: ${megabytes(sent)} of ${megabytes(all)} MB${left > 1 ? `, about ${Math.ceil(left)} s left` : ''}`
        : `Reading ${called}: finding out what its ${megabytes(all)} MB hold`;
    if (sent >= all) by('progress-bar').removeAttribute('value');
  });
  by('cancel').onclick = sending.cancel;
  try {
    location.assign((await untilRead(await sending.promise, called)).address);
  } catch (refused) {
    refuse(by('refusal'), refused.message);
    by('progress').hidden = true;
    if (by('file')) by('file').value = '';
  }
}

/** Asks for a table at an address and goes on to the page that looks at it. @param {string} address */
export async function bringFrom(address) {
  refuse(by('refusal'), '');
  showProgress({ words: `Asking ${address}` }, () => location.reload(), {});
  try {
    const taken = await ask('POST', '/api/bring/address', { body: { address } });
    location.assign((await untilRead(taken, 'what came')).address);
  } catch (refused) {
    refuse(by('refusal'), refused.message);
    by('progress').hidden = true;
  }
}

/** Says how far work has come, in the page's line of progress, with a way to stop it. */
export function showProgress(going, stop, began) {
  by('progress').hidden = false;
  by('cancel').onclick = stop;
  if (going.all) {
    began.first ??= { at: performance.now(), done: going.done };
    const left =
      (((performance.now() - began.first.at) / 1000) * (going.all - going.done)) /
      Math.max(1, going.done - began.first.done);
    by('progress-bar').value = going.done / going.all;
    by('progress-words').textContent =
      `${going.words}: ${count(going.done)} of ${count(going.all)}${left > 1 && going.done > began.first.done ? `, about ${Math.ceil(left)} s left` : ''}`;
  } else {
    began.first = undefined;
    by('progress-bar').removeAttribute('value');
    by('progress-words').textContent = going.done ? `${going.words}: ${count(going.done)} so far` : going.words;
  }
}

/**
 * Waits until files that were sent are read, saying how many rows have been gone through and how long it may still
 * take.
 */
export async function untilRead(taken, called) {
  const began = {};
  const stop = () => ask('DELETE', `/api/bring/${taken.id}`).catch(() => {});
  while (taken.working) {
    showProgress({ words: `${taken.words} ${called}`, done: taken.rows, all: taken.all }, stop, began);
    taken = await ask('GET', `/api/bring/${taken.id}`);
  }
  return taken;
}

/** Waits for work, telling how far it has come, and takes the line of progress away again. */
export async function withProgress(method, address, options = {}) {
  const began = {};
  try {
    return await ask(method, address, { ...options, onProgress: (going, stop) => showProgress(going, stop, began) });
  } finally {
    by('progress').hidden = true;
  }
}
