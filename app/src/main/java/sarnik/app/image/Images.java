package sarnik.app.image;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** Keeps the pictures that stand on sheets. */
@Service
public class Images {

    /** For so long a picture may wait to be put on a sheet. */
    private static final Duration UNUSED_FOR = Duration.ofDays(7);

    private final StoredImageRepository stored;
    private final TransactionTemplate transaction;

    Images(StoredImageRepository stored, TransactionTemplate transaction) {
        this.stored = stored;
        this.transaction = transaction;
    }

    /** Clears once a day what no dashboard shows or showed. */
    @Scheduled(fixedDelay = 1, initialDelay = 1, timeUnit = TimeUnit.DAYS)
    void clearUnused() {
        clearUnused(Instant.now().minus(UNUSED_FOR));
    }

    /**
     * @param before only pictures kept before then
     * @return how many were cleared
     */
    int clearUnused(Instant before) {
        return transaction.execute(t -> stored.clearUnused(before));
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
