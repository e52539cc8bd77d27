import { Layer } from '/vendor/ol.js';

/** Part of the view painted beyond each edge, so that a moved map has no blank margin at once. */
const MARGIN = 0.2;
/** Time after which the margin follows what is in view, milliseconds: what can be seen comes first. */
const MARGIN_AFTER = 160;
const MOST_RATIO = 2;

/**
 * A map layer painted on a canvas. While the view moves the canvas is only moved and scaled; it is painted anew when
 * the view
 * rests: first what is in view, and a moment later with a margin round it.
 */
export class PaintedLayer extends Layer {
  #canvas = document.createElement('canvas');
  #box = document.createElement('div');
  #painted = null;
  #stale = true;
  #wide = false;
  #widening = 0;
  #paint;
  #still;

  /**
   * @param {(sheet: Sheet) => void} paint draws with `sheet.context`, in pixels of the sheet
   * @param {boolean} [still] that of a map nobody moves: without a margin, and its names have to stand whole
   */
  constructor(paint, still = false) {
    super({});
    this.#paint = paint;
    this.#still = still;
    this.#box.className = 'ol-layer';
    Object.assign(this.#box.style, { position: 'absolute', width: '100%', height: '100%', overflow: 'hidden' });
    Object.assign(this.#canvas.style, { position: 'absolute', transformOrigin: '0 0', left: '0', top: '0' });
    this.#box.append(this.#canvas);
  }

  /** The same on other maps, painted anew with it. */
  mirrors = new Set();

  /** The same for another map, which nobody moves. */
  mirrored() {
    const mirror = new PaintedLayer(this.#paint, true);
    this.mirrors.add(mirror);
    return mirror;
  }

  /** Paints anew at the next picture. */
  repaint() {
    this.#stale = true;
    this.changed();
    for (const mirror of this.mirrors) mirror.repaint();
  }

  render(frame) {
    const { center, resolution } = frame.viewState;
    const moves = frame.viewHints[0] > 0 || frame.viewHints[1] > 0;
    const before = this.#painted;
    const moved =
      !before ||
      before.resolution !== resolution ||
      before.center[0] !== center[0] ||
      before.center[1] !== center[1] ||
      before.size[0] !== frame.size[0] ||
      before.size[1] !== frame.size[1];
    if (this.#stale || !before || (moved && !moves)) {
      this.#paintAt(frame, 0);
      clearTimeout(this.#widening);
      if (!this.#still)
        this.#widening = setTimeout(() => {
          this.#wide = true;
          this.changed();
        }, MARGIN_AFTER);
    } else if (this.#wide && !moves) {
      this.#paintAt(frame, MARGIN);
    }
    const { resolution: was, left, top } = this.#painted;
    const scale = was / resolution;
    const x = frame.size[0] / 2 + (left - center[0]) / resolution;
    const y = frame.size[1] / 2 + (center[1] - top) / resolution;
    this.#canvas.style.transform = `translate(${x}px, ${y}px) scale(${scale})`;
    return this.#box;
  }

  /**
   * Paints what is in view on another canvas, such as that of a picture to take along.
   * @param {HTMLCanvasElement} canvas whose size is that of the view times `ratio`
   */
  paintOn(canvas, ratio, view) {
    const own = Object.assign(document.createElement('canvas'), { width: canvas.width, height: canvas.height });
    const context = own.getContext('2d');
    const [width, height] = [canvas.width / ratio, canvas.height / ratio];
    const [[x, y], resolution] = [view.getCenter(), view.getResolution()];
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    this.#paint(
      new Sheet(context, ratio, width, height, x - (width / 2) * resolution, y + (height / 2) * resolution, resolution),
    );
    canvas.getContext('2d').drawImage(own, 0, 0);
  }

  disposeInternal() {
    clearTimeout(this.#widening);
    super.disposeInternal();
  }

  #paintAt(frame, margin) {
    this.#wide = false;
    const ratio = Math.min(frame.pixelRatio, MOST_RATIO);
    const { center, resolution } = frame.viewState;
    const width = Math.ceil(frame.size[0] * (1 + 2 * margin));
    const height = Math.ceil(frame.size[1] * (1 + 2 * margin));
    if (this.#canvas.width !== width * ratio || this.#canvas.height !== height * ratio) {
      this.#canvas.width = width * ratio;
      this.#canvas.height = height * ratio;
      this.#canvas.style.width = `${width}px`;
      this.#canvas.style.height = `${height}px`;
    }
    const left = center[0] - (width / 2) * resolution;
    const top = center[1] + (height / 2) * resolution;
    this.#painted = { center: [...center], resolution, left, top, size: [...frame.size] };
    this.#stale = false;
    const context = this.#canvas.getContext('2d');
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    context.clearRect(0, 0, width, height);
    this.#paint(new Sheet(context, ratio, width, height, left, top, resolution, this.#still));
  }
}

/** What a painter draws on: a context whose unit is the CSS pixel, and where map coordinates fall on it. */
export class Sheet {
  constructor(context, ratio, width, height, left, top, resolution, still = false) {
    Object.assign(this, { context, ratio, width, height, left, top, resolution, still });
  }

  x(mapX) {
    return (mapX - this.left) / this.resolution;
  }

  y(mapY) {
    return (this.top - mapY) / this.resolution;
  }

  /** Runs `draw(pixel)` with map coordinates as the unit; `pixel` is the size of a pixel in them. */
  inMapUnits(draw) {
    const s = this.ratio / this.resolution;
    this.context.save();
    this.context.setTransform(s, 0, 0, -s, -this.left * s, this.top * s);
    draw(this.resolution);
    this.context.restore();
  }

  /** Extent in map coordinates: [west, south, east, north]. */
  extent() {
    return [this.left, this.top - this.height * this.resolution, this.left + this.width * this.resolution, this.top];
  }
}
