// The parts of d3 that Sarnik's drawings use.
export { scaleLinear, scaleLog, scaleUtc, scalePoint, scaleBand } from 'd3-scale';
export { arc, area, curveLinear, curveStepAfter, line, pie } from 'd3-shape';
export { bisector, extent, max, min } from 'd3-array';
export { utcFormat } from 'd3-time-format';
