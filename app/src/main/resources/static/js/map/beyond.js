const LEAST = 2.6;
const MOST = 5;
/** The mark on an area: of no size of its own. */
const ON_AREA = 3.6;

/** Which kinds of layers mark what lies beyond the ends of their scale. */
export const marksBeyond = kind => kind === 'symbols' || kind === 'areas';

/** The outline of the mark: a triangle up for what lies above the high end, down for what lies below the low one. */
export function arrow(path, x, y, r, up) {
  const way = up ? -1 : 1;
  path.moveTo(x, y + way * r * 1.1);
  path.lineTo(x + r, y - way * r * 0.75);
  path.lineTo(x - r, y - way * r * 0.75);
  path.closePath();
}

/**
 * Marks the places whose values lie beyond ends that were set for the scale: their colour alone would make them look
 * like those at the end.
 * @param {import('./painted-layer.js').Sheet} sheet
 */
export function paintBeyond(sheet, layer, tones) {
  if (!marksBeyond(layer.type)) return;
  const { context } = sheet;
  context.globalAlpha = 1;
  context.fillStyle = tones.ink;
  context.strokeStyle = tones.halo;
  context.lineWidth = 2;
  context.lineJoin = 'round';
  for (const [marks, up] of [
    [layer.key.below, false],
    [layer.key.above, true],
  ]) {
    for (const i of marks) {
      if (layer.radii && !(layer.radii[i] > 0)) continue;
      const [x, y] = [sheet.x(layer.xy[i][0]), sheet.y(layer.xy[i][1])];
      if (x < -MOST || y < -MOST || x > sheet.width + MOST || y > sheet.height + MOST) continue;
      context.beginPath();
      arrow(context, x, y, layer.radii ? Math.max(LEAST, Math.min(MOST, layer.radii[i] * 0.5)) : ON_AREA, up);
      context.stroke();
      context.fill();
    }
  }
}
