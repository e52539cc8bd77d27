// The parts of OpenLayers that Sarnik uses.
export { default as OlMap } from 'ol/Map.js';
export { default as View } from 'ol/View.js';
export { default as Layer } from 'ol/layer/Layer.js';
export { default as ScaleLine } from 'ol/control/ScaleLine.js';
export { default as DragBox } from 'ol/interaction/DragBox.js';
export { default as DragPan } from 'ol/interaction/DragPan.js';
export { default as KeyboardPan } from 'ol/interaction/KeyboardPan.js';
export { default as KeyboardZoom } from 'ol/interaction/KeyboardZoom.js';
export { default as MouseWheelZoom } from 'ol/interaction/MouseWheelZoom.js';
export { default as PinchZoom } from 'ol/interaction/PinchZoom.js';
export { altKeyOnly } from 'ol/events/condition.js';
export { fromLonLat, toLonLat } from 'ol/proj.js';
export { boundingExtent, buffer, containsCoordinate, getWidth, getHeight } from 'ol/extent.js';
