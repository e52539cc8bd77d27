import './head.js';
import { refuse } from './elements.js';
import { ask } from './http.js';
import { PlacingMap } from './map/placing-map.js';
import { bring } from './sending.js';

const points = document.getElementById('points');
if (points) new PlacingMap(document.getElementById('placing-map')).show(JSON.parse(points.textContent));

const input = document.getElementById('file');
input.addEventListener('change', () => input.files[0] && bring(input.files[0], Number(input.dataset.dataset)));

for (const button of document.querySelectorAll('[data-serve]')) {
  button.addEventListener('click', async () => {
    try {
      await ask('POST', button.dataset.serve);
      location.reload();
    } catch (refused) {
      refuse(document.getElementById('refusal'), refused.message);
    }
  });
}
