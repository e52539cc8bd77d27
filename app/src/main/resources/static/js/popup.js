import { el } from './elements.js';

let open = null;

/** Closes the popup that is open, if any. */
export function closePopup(focusOpener = false) {
  if (!open) return;
  const { box, opener } = open;
  open = null;
  box.remove();
  opener.setAttribute('aria-expanded', 'false');
  if (focusOpener) opener.focus();
}

/**
 * Opens a popup at an element; it closes on Escape, on a press elsewhere, and when another opens.
 * @param {HTMLElement} opener
 * @param {HTMLElement[]} content
 */
export function openPopup(opener, content) {
  closePopup();
  const box = el('div', { class: 'popup' }, ...content);
  opener.setAttribute('aria-expanded', 'true');
  document.body.append(box);
  open = { box, opener };
  const at = opener.getBoundingClientRect();
  const below = at.bottom + box.offsetHeight + 8 < innerHeight;
  box.style.left = `${Math.max(8, Math.min(at.left, innerWidth - box.offsetWidth - 8)) + scrollX}px`;
  box.style.top = `${Math.max(8, below ? at.bottom + 4 : at.top - box.offsetHeight - 4) + scrollY}px`;
  (box.querySelector('input, [aria-selected=true]') ?? box.querySelector('button'))?.focus();
  box.addEventListener('keydown', e => {
    if (e.key === 'Escape') closePopup(true);
    if (e.key !== 'ArrowDown' && e.key !== 'ArrowUp') return;
    const stops = [...box.querySelectorAll('input, button')].filter(s => s.offsetParent);
    const here = stops.indexOf(document.activeElement);
    stops[(here + (e.key === 'ArrowDown' ? 1 : stops.length - 1)) % stops.length]?.focus();
    e.preventDefault();
  });
  return box;
}

document.addEventListener('pointerdown', e => {
  if (open && !open.box.contains(e.target) && !open.opener.contains(e.target)) closePopup();
});
