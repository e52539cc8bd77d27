/** The mood switch in the head of every page. Announces 'mood' on the document when it changes. */
const button = document.getElementById('mood');
const root = document.documentElement;

function label() {
  if (button) button.textContent = root.dataset.mood === 'night' ? 'Day' : 'Night';
}
button?.addEventListener('click', () => {
  root.dataset.mood = root.dataset.mood === 'night' ? 'day' : 'night';
  try {
    localStorage.setItem('sarnik.mood', root.dataset.mood);
  } catch {
    /* kept for this page only */
  }
  label();
  document.dispatchEvent(new CustomEvent('mood'));
});
label();
