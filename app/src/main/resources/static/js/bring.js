import './head.js';
import { ask } from './http.js';
import { elsewhere } from './elsewhere.js';
import { bring, bringFrom } from './sending.js';

const drop = document.getElementById('drop');
const input = document.getElementById('file');

const taken = () => input.files[0] && bring([...input.files]);
input.addEventListener('change', taken);
// A file may have been chosen before this script was there.
taken();
drop.addEventListener('dragover', e => {
  e.preventDefault();
  drop.classList.add('is-over');
});
drop.addEventListener('dragleave', () => drop.classList.remove('is-over'));
drop.addEventListener('drop', e => {
  e.preventDefault();
  drop.classList.remove('is-over');
  if (e.dataTransfer.files[0]) bring([...e.dataTransfer.files]);
});
document.getElementById('paste').addEventListener('click', () => {
  const text = document.getElementById('cells').value;
  if (text.trim()) bring([new File([text], 'pasted cells.tsv', { type: 'text/tab-separated-values' })]);
});
document.getElementById('far').addEventListener('submit', e => {
  e.preventDefault();
  bringFrom(document.getElementById('far-address').value.trim());
});
elsewhere();

for (const button of document.querySelectorAll('[data-let-go]')) {
  button.addEventListener('click', async () => {
    await ask('DELETE', `/api/bring/${button.dataset.letGo}`).catch(() => {});
    location.reload();
  });
}
