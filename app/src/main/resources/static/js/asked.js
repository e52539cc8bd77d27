/**
 * The presses beside what was found in the rows of a file that may be meant in another way.
 *
 * @param {object} shaping what is made of the file's rows and columns; is changed
 * @param {function(): void} reread reads the file again as it says then
 */
export function whereAsked(shaping, reread) {
  const pressed = (selector, change) => {
    for (const button of document.querySelectorAll(selector))
      button.addEventListener('click', () => {
        change(button.dataset);
        reread();
      });
  };
  pressed('#take-missing', ({ words }) => {
    shaping.missing = [...shaping.missing, ...JSON.parse(words)];
  });
  pressed('[data-sums]', ({ sums, to }) => {
    shaping[sums] = to === 'true';
  });
  pressed('[data-rows]', ({ rows, to }) => {
    shaping.rows[rows] = JSON.parse(to);
  });
  pressed('#turn-days, #keep-days', ({ monthFirst }) => {
    shaping.monthFirst = monthFirst === 'true';
  });
  pressed('#turn-marks, #keep-marks', ({ mark }) => {
    shaping.eitherMark = mark;
  });
}
