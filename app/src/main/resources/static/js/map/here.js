import { say } from '../elements.js';
import { phrase } from '../language.js';

/** Above labels. */
const LEVEL = 60;
/** Length of a degree of latitude, metres. */
const DEGREE = 111_320;
const DOT = 6;
/** A position is good for as long as this, milliseconds. */
const FRESH = 60_000;

const WHY = {
  1: phrase('Your browser has not been allowed to say where you are. It can be allowed in the page’s settings.'),
  2: phrase('Where you are cannot be found out at present.'),
  3: phrase('Finding out where you are took too long. Try again.'),
};

/** Whether the browser can say where it is; it does so only on pages that are safe from listening. */
export const canSayWhere = () => isSecureContext && 'geolocation' in navigator;

/**
 * Shows where the reader is. The browser asks whether it may be told; nothing of it leaves the browser.
 * @param {import('./map-view.js').MapView} view
 */
export function showHere(view) {
  if (!canSayWhere()) {
    say(phrase('Your browser says where it is on https pages only.'));
    return;
  }
  navigator.geolocation.getCurrentPosition(
    ({ coords }) => {
      view.here = coords;
      view.hereLayer ??= view.add(sheet => paintHere(sheet, view), LEVEL);
      view.hereLayer.repaint();
      view.flyTo(coords.longitude, coords.latitude, zoomFor(coords.accuracy));
      say(phrase('You are within {0} of the dot.', about(coords.accuracy)));
    },
    ({ code }) => say(WHY[code] ?? WHY[2]),
    { maximumAge: FRESH, timeout: 15_000, enableHighAccuracy: true },
  );
}

const about = metres =>
  metres < 1000 ? `${Math.max(10, Math.ceil(metres / 10) * 10)} m` : `${(metres / 1000).toFixed(1)} km`;

/** So near that the circle of what is not known fills a part of the map. */
const zoomFor = metres => Math.max(8, Math.min(15, Math.log2(20_000_000 / Math.max(50, metres))));

function paintHere(sheet, view) {
  const { longitude, latitude, accuracy } = view.here;
  const [x, y] = view.projection.project(longitude, latitude);
  const north = view.projection.project(longitude, Math.min(89, latitude + accuracy / DEGREE));
  const { context } = sheet;
  const style = name => getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim();
  const at = [sheet.x(x), sheet.y(y)];
  const radius = Math.hypot(sheet.x(north[0]) - at[0], sheet.y(north[1]) - at[1]);
  const disc = r => {
    context.beginPath();
    context.arc(...at, r, 0, 2 * Math.PI);
  };
  context.fillStyle = style('rust');
  context.globalAlpha = 0.14;
  disc(Math.max(radius, DOT));
  context.fill();
  context.globalAlpha = 1;
  disc(DOT);
  context.fill();
  context.lineWidth = 2;
  context.strokeStyle = style('paper');
  context.stroke();
}
