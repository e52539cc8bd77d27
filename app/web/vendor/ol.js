// The parts of OpenLayers that Sarnik uses.
export { default as OlMap } from 'ol/Map.js';
export { default as View } from 'ol/View.js';
export { default as Layer } from 'ol/layer/Layer.js';
export { default as TileLayer } from 'ol/layer/Tile.js';
export { default as XYZ } from 'ol/source/XYZ.js';
export { default as ScaleLine } from 'ol/control/ScaleLine.js';
export { default as DragBox } from 'ol/interaction/DragBox.js';
export { default as DragPan } from 'ol/interaction/DragPan.js';
export { default as KeyboardPan } from 'ol/interaction/KeyboardPan.js';
export { default as KeyboardZoom } from 'ol/interaction/KeyboardZoom.js';
export { default as MouseWheelZoom } from 'ol/interaction/MouseWheelZoom.js';
export { default as PinchZoom } from 'ol/interaction/PinchZoom.js';
export { default as RBush } from 'ol/structs/RBush.js';
export { default as Projection } from 'ol/proj/Projection.js';
export { altKeyOnly } from 'ol/events/condition.js';
export { addCoordinateTransforms, fromLonLat, toLonLat } from 'ol/proj.js';
export {
  boundingExtent,
  buffer,
  containsCoordinate,
  containsExtent,
  extend,
  getWidth,
  getHeight,
  intersects,
} from 'ol/extent.js';
