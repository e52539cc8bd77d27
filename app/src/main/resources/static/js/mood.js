// Runs before the first picture so that the page does not flash in the other mood.
try {
  const kept = localStorage.getItem('sarnik.mood');
  document.documentElement.dataset.mood = kept ?? 'day';
} catch {
  /* a browser that keeps nothing shows the day */
}
