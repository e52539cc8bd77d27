import './head.js';
import { PlacingMap } from './map/placing-map.js';

const points = document.getElementById('points');
if (points) new PlacingMap(document.getElementById('placing-map')).show(JSON.parse(points.textContent));
