import { phrase } from './language.js';
/** The mood switch in the head of every page. Announces 'mood' on the document when it changes. */
const button = document.getElementById('mood');
const root = document.documentElement;

function label() {
  if (button) button.textContent = root.dataset.mood === 'night' ? phrase('mood|Day') : phrase('mood|Night');
}

/** Has the page look as by day or by night. @param {'day'|'night'} mood */
export function wearMood(mood) {
  if (root.dataset.mood === mood) return;
  root.dataset.mood = mood;
  label();
  document.dispatchEvent(new CustomEvent('mood'));
}

button?.addEventListener('click', () => {
  wearMood(root.dataset.mood === 'night' ? 'day' : 'night');
  try {
    localStorage.setItem('sarnik.mood', root.dataset.mood);
  } catch {
    /* kept for this page only */
  }
});
label();

/** A language is chosen for this page and those that follow; what else its address says stays. */
document.getElementById('language')?.addEventListener('change', ({ target }) => {
  const others = location.search
    .slice(1)
    .split('&')
    .filter(part => part && !part.startsWith('language='));
  location.assign(`${location.pathname}?${[...others, `language=${target.value}`].join('&')}${location.hash}`);
});
