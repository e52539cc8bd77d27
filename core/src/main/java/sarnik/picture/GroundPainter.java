package sarnik.picture;

import java.awt.AlphaComposite;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.Shape;
import java.awt.geom.AffineTransform;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Point2D;
import java.awt.geom.Rectangle2D;
import java.awt.image.BufferedImage;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.locationtech.jts.geom.Envelope;
import sarnik.picture.GroundPacks.Pack;
import sarnik.picture.GroundPacks.Town;

/** Draws the ground of a picture as ground.js draws it in the browser. */
final class GroundPainter {

    private static final double INSET = 0.05;
    /** More tiles than this take too long to fetch for one picture. */
    private static final int MOST_TILES = 80;
    /** Provinces are drawn where a pixel is fewer metres than this, by detail. */
    private static final double[] PROVINCES = {2500, 6000, 9000};
    /** How much smaller than usual a town may be to be named, by detail. */
    private static final double[] NAMES = {12, 1, 0.25};

    private static final double[] RIVERS = {1.1, 0.8, 0.6};
    private static final double GAP = 6;

    private final Ground ground;
    private final View view;
    private final Look look;

    GroundPainter(Ground ground, View view, Look look) {
        this.ground = ground;
        this.view = view;
        this.look = look;
    }

    private boolean is(Ground.Mood mood) {
        return ground.mood() == mood;
    }

    /** Everything that lies below the layers. */
    void paint(Pen pen) {
        boolean empty = is(Ground.Mood.PLAIN) || is(Ground.Mood.OUTLINE);
        pen.fill(view.all(), empty ? look.paper() : look.water(), 1);
        if (is(Ground.Mood.PLAIN)) return;
        pack(pen, ground.packs().world(), false);
        Envelope box = ground.packs().near().box();
        Shape near = view.path(new Envelope(
                box.getMinX() + INSET, box.getMaxX() - INSET, box.getMinY() + INSET, box.getMaxY() - INSET));
        if (near.intersects(view.all())) {
            pen.clip(near);
            pen.fill(view.all(), empty ? look.paper() : look.water(), 1);
            pack(pen, ground.packs().near(), true);
            pen.unclip();
        }
        if (is(Ground.Mood.TILES)) over(pen, ground.tiles(), 1);
    }

    /** Draws the tiles of a source over what is there; on other planes than Web Mercator there are none. */
    void over(Pen pen, Ground.Tiles tiles, double opacity) {
        if (view.isMercator()) tiles(pen, tiles, opacity);
    }

    private void pack(Pen pen, Pack pack, boolean isNear) {
        Shape land = view.path(pack.land());
        if (!is(Ground.Mood.OUTLINE)) pen.fill(land, look.land(), 1);
        if (is(Ground.Mood.TINTED) && view.isMercator())
            pen.image(relief(land), 0, view.above(), view.width(), view.height());
        if (isNear && !is(Ground.Mood.OUTLINE)) rivers(pen);
        pen.stroke(land, look.border(), 0.8, 1);
        if (isNear && view.metres() < PROVINCES[ground.detail() - 1])
            pen.stroke(view.path(pack.provinces()), look.province(), 0.7, 1);
        pen.dashed(view.path(pack.borders()), look.border(), 1.3, 5, 2.5);
    }

    private void rivers(Pen pen) {
        int shown = Math.min(3, (view.metres() < 600 ? 3 : view.metres() < 2500 ? 2 : 1) + ground.detail() - 2);
        for (int degree = 0; degree < shown; degree++)
            pen.stroke(view.path(ground.packs().rivers().get(degree)), look.river(), RIVERS[degree], 1);
    }

    /** The relief where the land is: darker than the land where it lies in the shade, clear where the sea is. */
    private BufferedImage relief(Shape land) {
        BufferedImage tint = new BufferedImage(view.width(), view.height(), BufferedImage.TYPE_INT_ARGB);
        BufferedImage relief = ground.packs().relief();
        for (int y = 0; y < view.height(); y++) {
            for (int x = 0; x < view.width(); x++) {
                Point2D at = view.degrees(x + 0.5, y + 0.5);
                tint.setRGB(
                        x,
                        y,
                        shade(smooth(
                                relief,
                                (at.getX() + 180) / 360 * relief.getWidth(),
                                (90 - at.getY()) / 180 * relief.getHeight())));
            }
        }
        Graphics2D graphics = tint.createGraphics();
        BufferedImage mask = new BufferedImage(view.width(), view.height(), BufferedImage.TYPE_INT_ARGB);
        Graphics2D masking = mask.createGraphics();
        masking.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        masking.fill(AffineTransform.getTranslateInstance(0, -view.above()).createTransformedShape(land));
        masking.dispose();
        graphics.setComposite(AlphaComposite.DstIn);
        graphics.drawImage(mask, 0, 0, null);
        graphics.dispose();
        return tint;
    }

    /** Three quarters of the relief's colour over the land by day; by night a third of its light only. */
    private int shade(Color relief) {
        Color land = Color.decode(look.land());
        if (look.night()) {
            double light = (0.3 * relief.getRed() + 0.59 * relief.getGreen() + 0.11 * relief.getBlue()) / 255;
            return new Color(
                            mixed(land.getRed(), light * 2),
                            mixed(land.getGreen(), light * 2),
                            mixed(land.getBlue(), light * 2))
                    .getRGB();
        }
        return new Color(
                        mixed(land.getRed(), relief.getRed() / 255.0),
                        mixed(land.getGreen(), relief.getGreen() / 255.0),
                        mixed(land.getBlue(), relief.getBlue() / 255.0))
                .getRGB();
    }

    private int mixed(int land, double by) {
        double much = look.night() ? 0.35 : 0.75;
        return (int) Math.max(0, Math.min(255, land * (1 - much) + land * by * much));
    }

    /** Between four pixels; the picture goes round the world. */
    private static Color smooth(BufferedImage image, double x, double y) {
        int left = (int) Math.floor(x - 0.5);
        int top = (int) Math.floor(y - 0.5);
        double fx = x - 0.5 - left;
        double fy = y - 0.5 - top;
        double[] sum = new double[3];
        for (int dy = 0; dy < 2; dy++) {
            for (int dx = 0; dx < 2; dx++) {
                int rgb = image.getRGB(
                        Math.floorMod(left + dx, image.getWidth()),
                        Math.max(0, Math.min(image.getHeight() - 1, top + dy)));
                double weight = (dx == 0 ? 1 - fx : fx) * (dy == 0 ? 1 - fy : fy);
                for (int c = 0; c < 3; c++) sum[c] += weight * (rgb >> (16 - 8 * c) & 0xFF);
            }
        }
        return new Color((int) sum[0], (int) sum[1], (int) sum[2]);
    }

    /** Tiles of the zoom whose pixels are nearest in size to those of the picture, or fewer of one farther out. */
    private void tiles(Pen pen, Ground.Tiles tiles, double opacity) {
        int z = (int) Math.max(
                0, Math.min(tiles.nearest(), Math.round(Math.log(view.scale() / TilePainter.SIZE) / Math.log(2))));
        double across = view.width() / view.scale();
        double down = view.height() / view.scale();
        while (z > 0 && (across * (1 << z) + 1) * (down * (1 << z) + 1) > MOST_TILES) z--;
        int count = 1 << z;
        double size = view.scale() / count;
        for (int y = (int) Math.max(0, Math.floor(view.top() * count));
                y <= Math.min(count - 1, Math.floor((view.top() + down) * count));
                y++) {
            for (int x = (int) Math.floor(view.left() * count); x <= Math.floor((view.left() + across) * count); x++) {
                byte[] tile = tiles.tile(z, Math.floorMod(x, count), y).orElse(null);
                if (tile != null)
                    tile(
                            pen,
                            tile,
                            opacity,
                            z,
                            (x - view.left() * count) * size,
                            view.above() + (y - view.top() * count) * size,
                            size);
            }
        }
    }

    private void tile(Pen pen, byte[] bytes, double opacity, int zoom, double x, double y, double size) {
        BufferedImage pixels = GroundTile.pixels(bytes)
                .or(() -> opacity == 1
                        ? Optional.empty()
                        : GroundTile.drawn(bytes, zoom, ground.detail(), look.night(), 2 * TilePainter.SIZE)
                                .flatMap(GroundTile::pixels))
                .orElse(null);
        if (pixels != null) pen.image(fainter(pixels, opacity), x, y, size, size);
        else
            GroundTile.shapes(bytes)
                    .ifPresent(shapes -> new TilePainter(shapes, zoom, ground.detail(), look).paint(pen, x, y, size));
    }

    private static BufferedImage fainter(BufferedImage image, double opacity) {
        if (opacity == 1) return image;
        BufferedImage faint = new BufferedImage(image.getWidth(), image.getHeight(), BufferedImage.TYPE_INT_ARGB);
        Graphics2D pen = faint.createGraphics();
        pen.setComposite(AlphaComposite.getInstance(AlphaComposite.SRC_OVER, (float) opacity));
        pen.drawImage(image, 0, 0, null);
        pen.dispose();
        return faint;
    }

    /** Names of towns, which give way to what is written already and to larger ones. */
    void names(Pen pen, List<Rectangle2D> taken) {
        if (is(Ground.Mood.PLAIN)) return;
        double least = view.metres() * view.metres() / 60 * NAMES[ground.detail() - 1];
        Envelope box = ground.packs().near().box();
        Stream.concat(
                        ground.packs().near().towns().stream(),
                        ground.packs().world().towns().stream().filter(t -> !box.contains(t.lon(), t.lat())))
                .filter(t -> t.people() >= least && view.all().contains(view.at(t.lon(), t.lat())))
                .sorted(Comparator.comparingInt(Town::people).reversed())
                .forEach(t -> name(pen, t, taken));
    }

    private void name(Pen pen, Town town, List<Rectangle2D> taken) {
        double x = view.at(town.lon(), town.lat()).getX();
        double y = view.at(town.lon(), town.lat()).getY();
        Rectangle2D box = new Rectangle2D.Double(
                x - GAP, y - 8 - GAP, Face.TEXT.wide(town.name(), 12) + 8 + 2 * GAP, 16 + 2 * GAP);
        if (taken.stream().anyMatch(box::intersects)) return;
        taken.add(box);
        pen.text(town.name(), x + 5, y + 4, 12, Face.TEXT, look.town(), look.paper());
        pen.fill(new Ellipse2D.Double(x - 1.6, y - 1.6, 3.2, 3.2), look.town(), 1);
    }
}
