/** Numbers as people read them: a comma between thousands, a point before decimals; as many decimals as the size asks for. */
export function full(value) {
  if (!Number.isFinite(value)) return '–';
  const size = Math.abs(value);
  const digits = Number.isInteger(value) || size >= 1000 ? 0 : size >= 100 ? 1 : 2;
  return value.toLocaleString('en', { minimumFractionDigits: digits, maximumFractionDigits: digits });
}

/** Figures as they arrive: missing ones are words in JSON. */
export const figures = list => Float64Array.from(list);

/** The largest of some numbers, 0 where there is none. Not Math.max(...): an argument list has a bound, a table may have any number of places. */
export function largest(numbers) {
  let most = 0;
  for (const n of numbers) if (n > most) most = n;
  return most;
}
