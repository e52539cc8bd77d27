package sarnik.app.image;

import java.time.Instant;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** Keeps the pictures that stand on sheets. */
@Service
public class Images {

    private final StoredImageRepository stored;
    private final TransactionTemplate transaction;

    Images(StoredImageRepository stored, TransactionTemplate transaction) {
        this.stored = stored;
        this.transaction = transaction;
    }

    /** A picture that is given out. */
    public record Image(String type, byte[] bytes) {}

    /** Keeps a picture; the same one is kept once. */
    void keep(Reencoded image, long by) {
        transaction.executeWithoutResult(t -> {
            if (!stored.existsById(image.name()))
                stored.save(new StoredImage(
                        image.name(), image.type(), image.width(), image.height(), image.bytes(), by, Instant.now()));
        });
    }

    /** The picture of this name. */
    public Optional<Image> find(String name) {
        return transaction.execute(t -> stored.findById(name)).map(i -> new Image(i.getType(), i.getBytes()));
    }
}
