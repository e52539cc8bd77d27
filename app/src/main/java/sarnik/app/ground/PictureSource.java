package sarnik.app.ground;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/**
 * Where pictures of the ground come from: square tiles in Web Mercator, of 256 pixels or of shapes that are drawn here.
 */
@Entity
@Table(name = "picture_sources")
public class PictureSource {

    @Id
    private String name;

    private String address;
    private String credit;
    private int nearest;
    private boolean shapes;
    private long addedBy;
    private Instant addedAt;

    protected PictureSource() {}

    PictureSource(
            String name, String address, String credit, int nearest, boolean shapes, long addedBy, Instant addedAt) {
        this.name = name;
        this.address = address;
        this.credit = credit;
        this.nearest = nearest;
        this.shapes = shapes;
        this.addedBy = addedBy;
        this.addedAt = addedAt;
    }

    public String getName() {
        return name;
    }

    /** With {z}, {x} and {y} where the tile's numbers stand; or the address of a PMTiles archive. */
    public String getAddress() {
        return address;
    }

    public String getCredit() {
        return credit;
    }

    /** The nearest zoom that there are tiles of. */
    public int getNearest() {
        return nearest;
    }

    /** Whether its tiles hold shapes, not pixels. */
    public boolean isShapes() {
        return shapes;
    }
}
