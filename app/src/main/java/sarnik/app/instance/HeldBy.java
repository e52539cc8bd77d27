package sarnik.app.instance;

import java.util.Optional;
import java.util.UUID;

/** Something that one instance holds, such as a job: what is asked of it has to be asked there. */
public interface HeldBy {

    /**
     * Which instance holds what an address is about.
     *
     * @param path of a request
     * @return empty where it is about nothing of this kind, and where whoever is asked can answer
     */
    Optional<UUID> holder(String path);
}
