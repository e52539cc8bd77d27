package sarnik.app.key;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import sarnik.app.people.PeopleService;
import sarnik.app.people.SignedIn;
import sarnik.app.uses.Uses;
import sarnik.app.web.RefusedException;
import sarnik.scale.ColourScale;
import sarnik.visual.Colour;
import sarnik.visual.SharedKey;
import tools.jackson.databind.json.JsonMapper;

/** Keeps the scales that several visuals and dashboards wear. */
@Service
public class SharedKeys {

    private static final int LONGEST_WORDS = 2000;

    /** As many as a scale of a dashboard's own may have. */
    private static final int MOST_BREAKS = 10;

    /** As many as a scale of a dashboard's own may have. */
    private static final int MOST_VALUES = 100;

    private final StoredKeyRepository stored;
    private final PeopleService people;
    private final Uses uses;
    private final TransactionTemplate transaction;
    private final JsonMapper mapper;

    SharedKeys(
            StoredKeyRepository stored,
            PeopleService people,
            Uses uses,
            TransactionTemplate transaction,
            JsonMapper mapper) {
        this.stored = stored;
        this.people = people;
        this.uses = uses;
        this.transaction = transaction;
        this.mapper = mapper;
    }

    /** The key of this name. */
    public Optional<SharedKey> find(String name) {
        return transaction.execute(t -> stored.findById(name)).map(this::key);
    }

    /** All keys, by name. */
    public List<SharedKey> all() {
        return transaction.execute(t -> stored.findAllByOrderByName()).stream()
                .map(this::key)
                .toList();
    }

    private SharedKey key(StoredKey key) {
        return new SharedKey(key.getName(), key.getWords(), mapper.readValue(key.getColour(), Colour.class));
    }

    /** Titles of the dashboards that wear a key. */
    List<String> wearers(String name) {
        return uses.ofKey(name).stream().map(Uses.Use::name).toList();
    }

    /**
     * Makes a key, or changes it for all who wear it.
     *
     * @throws RefusedException when the name is empty or the scale cannot be made
     */
    public void keep(SharedKey key, SignedIn person) {
        String name = key.name() == null ? "" : key.name().strip();
        if (name.isEmpty() || name.length() > 120 || name.contains("/"))
            throw new RefusedException("A shared key's name has 1 to 120 characters, without /.");
        if (key.colour() == null) throw new RefusedException("Say which scale the key is.");
        if (key.words() != null && key.words().length() > LONGEST_WORDS)
            throw new RefusedException(
                    "What is said of a shared key has up to %,d characters.".formatted(LONGEST_WORDS));
        if (isLonger(key.colour().breaks(), MOST_BREAKS)
                || isLonger(key.colour().order(), MOST_VALUES)) {
            throw new RefusedException("A shared key has up to %d own breaks and up to %d values in its order."
                    .formatted(MOST_BREAKS, MOST_VALUES));
        }
        try {
            if (key.colour().category() == null) ColourScale.check(key.colour().choice());
        } catch (IllegalArgumentException unfit) {
            throw new RefusedException(unfit.getMessage() + ".");
        }
        String words = key.words() == null ? "" : key.words().strip();
        transaction.executeWithoutResult(t -> {
            StoredKey kept = held(name, person).orElseGet(() -> new StoredKey(name, person.id()));
            kept.change(
                    words,
                    mapper.writeValueAsString(key.colour()),
                    person.id(),
                    Clock.systemUTC().instant());
            stored.save(kept);
        });
    }

    private static boolean isLonger(List<?> list, int most) {
        return list != null && list.size() > most;
    }

    /**
     * The key of this name, held until the transaction ends, where this person may change it; empty where there is
     * none.
     */
    private Optional<StoredKey> held(String name, SignedIn person) {
        Optional<StoredKey> kept = stored.findWithLockByName(name);
        kept.ifPresent(k -> people.checkMayChange(name, k.getCreatedBy(), k.isShared(), person));
        return kept;
    }

    /**
     * Takes a key away.
     *
     * @throws RefusedException when dashboards wear it; the message names them
     */
    void remove(String name, SignedIn person) {
        transaction.executeWithoutResult(t -> {
            StoredKey key = held(name, person).orElseThrow(() -> RefusedException.gone("shared key"));
            uses.refuseWhereUsed("The shared key", uses.ofKey(name));
            stored.delete(key);
        });
    }
}
