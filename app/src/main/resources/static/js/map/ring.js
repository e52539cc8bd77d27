import { el } from '../elements.js';
import { phrase } from '../language.js';

/** Whether a point lies within a ring (even-odd rule). */
export function isWithin([x, y], ring) {
  let within = false;
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
    const [[ax, ay], [bx, by]] = [ring[i], ring[j]];
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) within = !within;
  }
  return within;
}

/**
 * Lets the reader draw a ring around places by hand, once.
 * @param {import('./map-view.js').MapView} view
 * @param {(ring: number[][], add: boolean) => void} done gets the ring in map coordinates
 */
export function drawRing(view, done) {
  view.draws?.();
  const line = el('polyline', { fill: 'none' });
  const svg = el('svg', { class: 'map-ring' }, line);
  view.view.append(svg);
  view.hint.textContent = phrase('Draw a ring around places');
  view.hint.classList.add('is-on');
  const pixels = [];
  const at = e => {
    const box = svg.getBoundingClientRect();
    return [e.clientX - box.left, e.clientY - box.top];
  };
  const stop = () => {
    svg.remove();
    view.draws = null;
    view.hint.classList.remove('is-on');
    view.hint.textContent = phrase('Press the map, or hold Ctrl, to zoom with the wheel');
    removeEventListener('keydown', escape, true);
  };
  const escape = e => e.key === 'Escape' && (e.stopPropagation(), stop());
  view.draws = stop;
  addEventListener('keydown', escape, true);
  svg.addEventListener('pointerdown', e => {
    svg.setPointerCapture(e.pointerId);
    pixels.push(at(e));
    e.stopPropagation();
  });
  svg.addEventListener('pointermove', e => {
    if (!pixels.length) return;
    pixels.push(at(e));
    line.setAttribute('points', pixels.map(p => p.join(',')).join(' '));
  });
  svg.addEventListener('pointerup', e => {
    stop();
    if (pixels.length > 2)
      done(
        pixels.map(p => view.map.getCoordinateFromPixel(p)),
        e.shiftKey,
      );
  });
}
