import { linesOf } from '../visuals/chart.js';
import { takes } from './labels.js';

const HIGH = 15;
const PAD = 5;
const AWAY = [26, 54, 86];
const FONT = '500 12px "Hanken Grotesk", sans-serif';

/**
 * Notes beside the places that they are pinned to, each with a line that leads there. Labels give way to their words.
 * @param {import('./painted-layer.js').Sheet} sheet
 * @param {{at: number[], text: string}[]} notes map coordinates and words
 * @param {number[][]} taken boxes that are written on already @param {number[][]} covered boxes that cannot be seen
 */
export function paintNotes(sheet, notes, taken, covered, tones) {
  const { context } = sheet;
  context.font = FONT;
  for (const { at, text } of notes) {
    const [x, y] = [sheet.x(at[0]), sheet.y(at[1])];
    if (x < 0 || y < 0 || x > sheet.width || y > sheet.height) continue;
    const lines = linesOf(text);
    const width = Math.max(...lines.map(line => context.measureText(line).width)) + 2 * PAD;
    const height = lines.length * HIGH + PAD;
    const box = free(sheet, [x, y], [width, height], taken, covered);
    const [left, top] = box;
    context.strokeStyle = tones.ink;
    context.lineWidth = 1;
    context.beginPath();
    context.moveTo(x, y);
    context.lineTo(Math.max(left + 4, Math.min(x, left + width - 4)), top > y ? top : top + height);
    context.stroke();
    context.beginPath();
    context.arc(x, y, 3.2, 0, 2 * Math.PI);
    context.fillStyle = tones.paper;
    context.fill();
    context.stroke();
    context.fillRect(left, top, width, height);
    context.strokeStyle = tones.faint;
    context.strokeRect(left + 0.5, top + 0.5, width, height);
    context.fillStyle = tones.ink;
    lines.forEach((line, i) => context.fillText(line, left + PAD, top + 13 + i * HIGH));
  }
}

/** The first place around a point that is free, above it and below; where none is, the nearest above. */
function free(sheet, [x, y], [width, height], taken, covered) {
  const places = AWAY.flatMap(away =>
    [y - away - height, y + away].flatMap(top => [-0.5, 0, -1].map(shift => [x + shift * width, top])),
  ).filter(([left, top]) => left >= 0 && left + width <= sheet.width && top >= 0 && top + height <= sheet.height);
  const seen = places.filter(([left, top]) => takes([...covered], [left, top, left + width, top + height]));
  for (const [left, top] of seen) if (takes(taken, [left, top, left + width, top + height])) return [left, top];
  return seen[0] ?? places[0] ?? [Math.max(0, Math.min(x, sheet.width - width)), Math.max(0, y - AWAY[0] - height)];
}
