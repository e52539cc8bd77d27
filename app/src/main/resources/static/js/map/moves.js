import { el } from '../elements.js';
import { phrase } from '../language.js';

const SIGNS = {
  home: 'M2 8 8 2l6 6M4 7v7h8V7',
  find: 'M7 2a5 5 0 1 0 0 10A5 5 0 0 0 7 2M11 11l3.500 3.500',
  ring: 'M4 11C0 6 6 1 10 3s5 8 0 10-6-2-6-2',
  ground: 'M1 12l4-6 3 4 2-2.500 5 4.500zM1 14.500h14',
  follow: 'M8 1v3M8 12v3M1 8h3M12 8h3M8 4.500a3.500 3.500 0 1 0 0 7 3.500 3.500 0 0 0 0-7',
  views: 'M3 2h10v12l-5-3.500L3 14z',
  full: 'M2 6V2h4M14 6V2h-4M2 10v4h4M14 10v4h-4',
  take: 'M8 2v8M4.500 7 8 10.500 11.500 7M2 13.500h12',
};

const button = (name, run, content) =>
  el('button', { type: 'button', title: name, 'aria-label': name, onclick: run }, content);
/** A button that is known by its sign. */
export const sign = (name, words, run) =>
  button(words, run, el('svg', { viewBox: '0 0 16 16', 'aria-hidden': 'true' }, el('path', { d: SIGNS[name] })));

/** Nearer, farther and back. @param {(control: string) => boolean} has which of them are given */
export function movesOf(view, has = () => true) {
  return [
    has('ZOOM') && button(phrase('Nearer'), () => view.zoomBy(1), '+'),
    has('ZOOM') && button(phrase('Farther'), () => view.zoomBy(-1), '−'),
    has('HOME') && sign('home', phrase('Back to the start'), () => view.home()),
  ];
}
