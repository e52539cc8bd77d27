import { el } from '../elements.js';
import { phrase } from '../language.js';

/** What has to be said of the layers, each sentence once. */
export function notes(handle) {
  const { ground } = handle.view;
  const hints = handle.composing ? handle.layers.flatMap(l => l.key.hints ?? []) : [];
  const sentences = [
    ...(handle.drawing?.layers ?? []).flatMap(l => l.head.notes),
    ...(handle.drawing?.trail?.lacking ? [handle.drawing.trail.lacking] : []),
    ...handle.layers.map(l => l.trouble).filter(Boolean),
    ...(ground.trouble ? [ground.trouble] : []),
    ...hints,
    ...(handle.layers.some(l => l.awaited) ? [phrase('The shapes of the areas are on their way.')] : []),
  ];
  handle.notes.hidden = sentences.length === 0;
  handle.notes.replaceChildren(...[...new Set(sentences)].map(s => el('p', {}, s)));
}

/** Whose data is on the map. */
export function credits(handle) {
  const { view, drawing } = handle;
  // Names, and what a source leaves clear, are of the shipped ground.
  const ground =
    view.ground.mood === 'plain'
      ? []
      : [
          'Natural Earth · GeoNames · GSHHG',
          view.ground.mood.startsWith('source:') && handle.does.sourceOf(view.ground.mood.slice(7))?.credit,
        ];
  for (const layer of handle.layers)
    if (layer.type === 'pictures') ground.push(handle.does.sourceOf(layer.source)?.credit);
  view.credit.textContent = [...ground, ...(drawing?.credits ?? [])].filter(Boolean).join(' · ');
}
