package sarnik.app.people;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.Locale;
import java.util.function.LongSupplier;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;

/**
 * How long somebody has to wait who has typed a wrong password too often: nothing at first, then twice as long with
 * every
 * further try, up to a quarter of an hour. Counted for a name from one address, for a name from anywhere, and for an
 * address
 * whatever the name; the latter two bear more, so that one person's mistakes hardly hold another up. A wait is not
 * spent on
 * checking passwords.
 */
@Component
public class SignInWaits {

    private static final int OF_BOTH = 5;
    private static final int OF_NAME = 30;
    private static final int OF_ADDRESS = 100;
    private static final long LONGEST = Duration.ofMinutes(15).toMillis();

    private final LongSupplier clock;
    private final Cache<String, Tries> tries = Caffeine.newBuilder()
            .maximumSize(200_000)
            .expireAfterWrite(Duration.ofHours(1))
            .build();

    /**
     * @param until no try is taken before, ms
     */
    private record Tries(int wrong, long until) {}

    @Autowired
    SignInWaits() {
        this(System::currentTimeMillis);
    }

    SignInWaits(LongSupplier clock) {
        this.clock = clock;
    }

    private static String both(String name, String address) {
        return "b " + clean(name) + " " + address;
    }

    private static String name(String name) {
        return "n " + clean(name);
    }

    private static String address(String address) {
        return "a " + address;
    }

    private static String clean(String name) {
        String folded = name == null ? "" : name.strip().toLowerCase(Locale.ROOT);
        return folded.substring(0, Math.min(100, folded.length()));
    }

    /** Seconds that are still to be waited; 0 where a try is taken. */
    public long seconds(String name, String address) {
        long left = 0;
        for (String key : new String[] {both(name, address), name(name), address(address)}) {
            Tries known = tries.getIfPresent(key);
            if (known != null) left = Math.max(left, known.until - clock.getAsLong());
        }
        return (left + 999) / 1000;
    }

    /** Counts a wrong try. */
    public void wrong(String name, String address) {
        count(both(name, address), OF_BOTH);
        count(name(name), OF_NAME);
        count(address(address), OF_ADDRESS);
    }

    private void count(String key, int free) {
        tries.asMap().compute(key, (k, known) -> {
            int wrong = known == null ? 1 : known.wrong + 1;
            long wait = wrong < free ? 0 : Math.min(LONGEST, 1000L << Math.min(20, wrong - free));
            return new Tries(wrong, clock.getAsLong() + wait);
        });
    }

    /** Forgets the wrong tries of somebody who has signed in. */
    public void right(String name, String address) {
        tries.invalidate(both(name, address));
        tries.invalidate(name(name));
    }
}
