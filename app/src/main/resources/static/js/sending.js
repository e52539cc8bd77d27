import { refuse } from './elements.js';
import { sendFile } from './http.js';

const by = id => document.getElementById(id);
const megabytes = bytes => (bytes / 1e6).toFixed(1);

/**
 * Sends a file and goes on to the page that looks at it; says how far it has come, and why it was refused.
 * @param {number|null} dataset the dataset whose newer rows the file holds
 */
export async function bring(file, dataset = null) {
  refuse(by('refusal'), '');
  by('progress').hidden = false;
  const began = performance.now();
  const sending = sendFile(`/api/bring${dataset ? `?dataset=${dataset}` : ''}`, file, (sent, all) => {
    by('progress-bar').value = sent / all;
    const left = (performance.now() - began) / 1000 * (all - sent) / Math.max(1, sent);
    by('progress-words').textContent = sent < all
      ? `Sending ${file.name}: ${megabytes(sent)} of ${megabytes(all)} MB${left > 1 ? `, about ${Math.ceil(left)} s left` : ''}`
      : `Reading ${file.name}: finding out what its ${megabytes(all)} MB hold`;
    if (sent >= all) by('progress-bar').removeAttribute('value');
  });
  by('cancel').onclick = sending.cancel;
  try {
    location.assign((await sending.promise).address);
  } catch (refused) {
    refuse(by('refusal'), refused.message);
    by('progress').hidden = true;
    by('file').value = '';
  }
}
