package sarnik.app.key;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;
import sarnik.dashboard.Layer;
import sarnik.dashboard.SharedKey;
import sarnik.scale.ColourScale;
import tools.jackson.databind.json.JsonMapper;

/** Keeps the scales that several visuals and dashboards wear. */
@Service
public class SharedKeys {

    private final StoredKeyRepository stored;
    private final TransactionTemplate transaction;
    private final JsonMapper mapper;

    SharedKeys(StoredKeyRepository stored, TransactionTemplate transaction, JsonMapper mapper) {
        this.stored = stored;
        this.transaction = transaction;
        this.mapper = mapper;
    }

    /** The key of this name. */
    public Optional<SharedKey> find(String name) {
        return transaction.execute(t -> stored.findById(name)).map(this::key);
    }

    /** All keys, by name. */
    public List<SharedKey> all() {
        return transaction.execute(t -> stored.findAllByOrderByName()).stream().map(this::key).toList();
    }

    private SharedKey key(StoredKey key) {
        return new SharedKey(key.getName(), key.getWords(), mapper.readValue(key.getColour(), Layer.Colour.class));
    }

    /** Titles of the dashboards that wear a key. */
    List<String> wearers(String name) {
        return transaction.execute(t -> stored.wearers(name));
    }

    /**
     * Makes a key, or changes it for all who wear it.
     *
     * @throws RefusedException when the name is empty or the scale cannot be made
     */
    void keep(SharedKey key, SignedIn person) {
        String name = key.name() == null ? "" : key.name().strip();
        if (name.isEmpty() || name.length() > 120 || name.contains("/")) throw new RefusedException("A shared key's name has 1 to 120 characters, without /.");
        if (key.colour() == null) throw new RefusedException("Say which scale the key is.");
        try {
            if (key.colour().category() == null) ColourScale.check(key.colour().choice());
        } catch (IllegalArgumentException unfit) {
            throw new RefusedException(unfit.getMessage() + ".");
        }
        String words = key.words() == null ? "" : key.words().strip();
        transaction.executeWithoutResult(t -> stored.save(new StoredKey(name, words, mapper.writeValueAsString(key.colour()), person.id(), Clock.systemUTC().instant())));
    }

    /**
     * @throws RefusedException when dashboards wear it; the message names them
     */
    void remove(String name) {
        List<String> wearers = wearers(name);
        if (!wearers.isEmpty()) throw new RefusedException(HttpStatus.CONFLICT, "The key is worn by “" + String.join("”, “", wearers) + "”. Let them wear another first.");
        transaction.executeWithoutResult(t -> stored.deleteById(name));
    }
}
