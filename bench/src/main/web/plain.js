// The same maps drawn plainly, by the map library's own vector layer: what Sarnik's painters are measured beside.
export { default as OlMap } from 'ol/Map.js';
export { default as View } from 'ol/View.js';
export { default as VectorLayer } from 'ol/layer/Vector.js';
export { default as VectorSource } from 'ol/source/Vector.js';
export { default as Feature } from 'ol/Feature.js';
export { default as Point } from 'ol/geom/Point.js';
export { default as MultiPolygon } from 'ol/geom/MultiPolygon.js';
export { default as Style } from 'ol/style/Style.js';
export { default as Fill } from 'ol/style/Fill.js';
export { default as Stroke } from 'ol/style/Stroke.js';
export { default as Circle } from 'ol/style/Circle.js';
