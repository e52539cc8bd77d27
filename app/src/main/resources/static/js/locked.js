/** A link whose password was typed in this window is not asked for again. */
const form = document.querySelector('form');
const name = `sarnik.pass.${location.pathname.replace(/\/beside$/, '')}`;
try {
  const pass = sessionStorage.getItem(name);
  if (pass) {
    sessionStorage.removeItem(name);
    form.elements.pass.value = pass;
    form.submit();
  }
} catch {
  /* a browser that keeps nothing asks again */
}
