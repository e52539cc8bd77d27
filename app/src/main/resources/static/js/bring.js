import './head.js';
import { bring } from './sending.js';

const drop = document.getElementById('drop');
const input = document.getElementById('file');

input.addEventListener('change', () => input.files[0] && bring(input.files[0]));
drop.addEventListener('dragover', e => { e.preventDefault(); drop.classList.add('is-over'); });
drop.addEventListener('dragleave', () => drop.classList.remove('is-over'));
drop.addEventListener('drop', e => {
  e.preventDefault();
  drop.classList.remove('is-over');
  if (e.dataTransfer.files[0]) bring(e.dataTransfer.files[0]);
});
