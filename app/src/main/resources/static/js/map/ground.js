import { fromLonLat } from '/vendor/ol.js';

/**
 * The ground: land, water, borders and place names from the packs that ship with Sarnik. Iberia is drawn in more detail
 * inside its box, the rest of the world around it.
 */
const packs = new Map();
const CLAMP = 85;
const INSET = 0.05;
const LABEL_GAP = 6;

function point([lon, lat]) {
  return fromLonLat([lon, Math.max(-CLAMP, Math.min(CLAMP, lat))]);
}

function path(shapes, close) {
  const made = new Path2D();
  for (const ring of shapes) {
    ring.forEach((p, i) => {
      const [x, y] = point(p);
      if (i) made.lineTo(x, y);
      else made.moveTo(x, y);
    });
    if (close) made.closePath();
  }
  return made;
}

async function load(name) {
  const pack = await (await fetch(`/ground/${name}.json`)).json();
  return {
    box: pack.box ? box(pack.box) : null,
    land: path(pack.land.flat(), true),
    borders: path(pack.borders, false),
    provinces: path(pack.provinces, false),
    towns: pack.towns.map(([lon, lat, label, people]) => ({ at: point([lon, lat]), label, people })),
  };
}

function box([west, south, east, north]) {
  const [left, bottom] = point([west + INSET, south + INSET]);
  const [right, top] = point([east - INSET, north - INSET]);
  return [left, bottom, right, top];
}

/** Loads both packs once for all maps of the page. @returns {Promise<Object>} */
export function loadGround() {
  for (const name of ['iberia', 'world']) if (!packs.has(name)) packs.set(name, load(name));
  return Promise.all([packs.get('iberia'), packs.get('world')]).then(([iberia, world]) => ({ iberia, world }));
}

const colour = name => getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim();

/** @param {import('./painted-layer.js').Sheet} sheet */
export function paintGround(sheet, ground) {
  const { context } = sheet;
  context.fillStyle = colour('water');
  context.fillRect(0, 0, sheet.width, sheet.height);
  const near = ground.iberia.box;
  const view = sheet.extent();
  const meets = near[0] < view[2] && near[2] > view[0] && near[1] < view[3] && near[3] > view[1];
  const inside = meets && near[0] <= view[0] && near[1] <= view[1] && near[2] >= view[2] && near[3] >= view[3];
  if (!inside) clipped(sheet, meets ? near : null, true, () => paintPack(sheet, ground.world, false));
  if (meets) clipped(sheet, inside ? null : near, false, () => paintPack(sheet, ground.iberia, true));
}

/** @param {boolean} outside whether to keep what lies outside the box */
function clipped(sheet, extent, outside, paint) {
  const { context } = sheet;
  context.save();
  if (extent) {
    context.beginPath();
    if (outside) context.rect(0, 0, sheet.width, sheet.height);
    const [x, y] = [sheet.x(extent[0]), sheet.y(extent[3])];
    context.rect(x, y, sheet.x(extent[2]) - x, sheet.y(extent[1]) - y);
    context.clip('evenodd');
  }
  paint();
  context.restore();
}

function paintPack(sheet, pack, withProvinces) {
  const { context } = sheet;
  sheet.inMapUnits(pixel => {
    context.lineJoin = 'round';
    context.fillStyle = colour('land');
    context.fill(pack.land, 'evenodd');
    context.strokeStyle = colour('border');
    context.lineWidth = 0.8 * pixel;
    context.stroke(pack.land);
    if (withProvinces && pixel < 6000) {
      context.strokeStyle = colour('province');
      context.lineWidth = 0.7 * pixel;
      context.stroke(pack.provinces);
    }
    context.strokeStyle = colour('border');
    context.lineWidth = 1.3 * pixel;
    context.setLineDash([5 * pixel, 2.5 * pixel]);
    context.stroke(pack.borders);
    context.setLineDash([]);
  });
}

/** Names of towns that give way to larger ones; fewer the farther out. */
export function paintNames(sheet, ground) {
  const { context } = sheet;
  const taken = [];
  context.font = '500 12px "Hanken Grotesk", sans-serif';
  context.lineWidth = 3;
  context.lineJoin = 'round';
  context.strokeStyle = colour('halo');
  context.fillStyle = colour('town');
  const near = ground.iberia.box;
  const isNear = ([x, y]) => x > near[0] && x < near[2] && y > near[1] && y < near[3];
  const towns = [...ground.iberia.towns.filter(t => isNear(t.at)), ...ground.world.towns.filter(t => !isNear(t.at))]
    .sort((a, b) => b.people - a.people);
  const least = sheet.resolution * sheet.resolution / 60;
  for (const { at, label, people } of towns) {
    if (people < least) break;
    const [x, y] = [sheet.x(at[0]), sheet.y(at[1])];
    if (x < 0 || y < 0 || x > sheet.width || y > sheet.height) continue;
    const width = context.measureText(label).width;
    const spot = [x - LABEL_GAP, y - 8 - LABEL_GAP, x + width + 8 + LABEL_GAP, y + 8 + LABEL_GAP];
    if (taken.some(t => t[0] < spot[2] && t[2] > spot[0] && t[1] < spot[3] && t[3] > spot[1])) continue;
    taken.push(spot);
    context.strokeText(label, x + 5, y + 4);
    context.fillText(label, x + 5, y + 4);
    context.beginPath();
    context.arc(x, y, 1.6, 0, 7);
    context.fill();
  }
}
