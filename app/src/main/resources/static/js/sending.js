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
    const left = (performance.now() - began) / 1000 * (all - sent) / Math.max(1, sent);
    by('progress-words').textContent = sent < all
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

/** Waits until files that were sent are read, saying how many rows have been gone through and how long it may still take. */
export async function untilRead(taken, called) {
  let began = null;
  by('cancel').onclick = () => ask('DELETE', `/api/bring/${taken.id}`).catch(() => {});
  while (taken.working) {
    by('progress').hidden = false;
    if (taken.all) {
      began ??= { at: performance.now(), rows: taken.rows };
      const left = (performance.now() - began.at) / 1000 * (taken.all - taken.rows) / Math.max(1, taken.rows - began.rows);
      by('progress-bar').value = taken.rows / taken.all;
      by('progress-words').textContent = `Reading ${called}: ${count(taken.rows)} of ${count(taken.all)} rows${left > 1 && taken.rows > began.rows ? `, about ${Math.ceil(left)} s left` : ''}`;
    } else {
      by('progress-bar').removeAttribute('value');
      by('progress-words').textContent = `Looking at ${called}: ${count(taken.rows)} rows so far`;
    }
    taken = await ask('GET', `/api/bring/${taken.id}`);
  }
  return taken;
}
