package sarnik.app.image;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** A picture as it is stored; it never changes. */
@Entity
@Table(name = "images")
class StoredImage {

    @Id
    private String name;

    private String type;
    private int width;
    private int height;
    private byte[] bytes;
    private long createdBy;
    private Instant createdAt;

    protected StoredImage() {}

    StoredImage(String name, String type, int width, int height, byte[] bytes, long createdBy, Instant createdAt) {
        this.name = name;
        this.type = type;
        this.width = width;
        this.height = height;
        this.bytes = bytes.clone();
        this.createdBy = createdBy;
        this.createdAt = createdAt;
    }

    String getType() {
        return type;
    }

    byte[] getBytes() {
        return bytes.clone();
    }
}
