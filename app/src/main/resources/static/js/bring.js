import './head.js';
import { refuse } from './elements.js';
import { sendFile } from './http.js';

const drop = document.getElementById('drop');
const input = document.getElementById('file');
const progress = document.getElementById('progress');
const words = document.getElementById('progress-words');
const bar = document.getElementById('progress-bar');
const refusal = document.getElementById('refusal');
const megabytes = bytes => (bytes / 1e6).toFixed(1);

async function bring(file) {
  refuse(refusal, '');
  progress.hidden = false;
  const began = performance.now();
  const sending = sendFile('/api/bring', file, (sent, all) => {
    bar.value = sent / all;
    const left = (performance.now() - began) / 1000 * (all - sent) / Math.max(1, sent);
    words.textContent = sent < all
      ? `Sending ${file.name}: ${megabytes(sent)} of ${megabytes(all)} MB${left > 1 ? `, about ${Math.ceil(left)} s left` : ''}`
      : `Reading ${file.name}: finding out what its ${megabytes(all)} MB hold`;
    if (sent >= all) bar.removeAttribute('value');
  });
  document.getElementById('cancel').onclick = sending.cancel;
  try {
    location.assign((await sending.promise).address);
  } catch (refused) {
    refuse(refusal, refused.message);
    progress.hidden = true;
    input.value = '';
  }
}

input.addEventListener('change', () => input.files[0] && bring(input.files[0]));
drop.addEventListener('dragover', e => { e.preventDefault(); drop.classList.add('is-over'); });
drop.addEventListener('dragleave', () => drop.classList.remove('is-over'));
drop.addEventListener('drop', e => {
  e.preventDefault();
  drop.classList.remove('is-over');
  if (e.dataTransfer.files[0]) bring(e.dataTransfer.files[0]);
});
