package sarnik.app.token;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import jakarta.servlet.http.HttpServletResponse;
import java.time.Duration;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.LongSupplier;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Component;

/**
 * How many requests are answered within a minute for one who asks; said with each answer as the IETF's draft of rate
 * limit headers has it ({@code RateLimit-Policy}, {@code RateLimit}).
 */
@Component
public class RateLimits {

    private static final long WINDOW = 60_000;

    private final int tokens;
    private final int links;
    private final LongSupplier clock;
    private final Cache<String, AtomicInteger> counted = Caffeine.newBuilder()
            .maximumSize(100_000)
            .expireAfterWrite(Duration.ofMinutes(2))
            .build();

    @Autowired
    RateLimits(@Value("${sarnik.token-rate:1200}") int tokens, @Value("${sarnik.link-rate:60000}") int links) {
        this(tokens, links, System::currentTimeMillis);
    }

    RateLimits(int tokens, int links, LongSupplier clock) {
        this.tokens = tokens;
        this.links = links;
        this.clock = clock;
    }

    int forTokens() {
        return tokens;
    }

    int forLinks() {
        return links;
    }

    /**
     * A request that was counted.
     *
     * @param answered whether it is answered
     * @param left how many more are within the minute
     * @param seconds until the minute is over
     */
    record Counted(boolean answered, int limit, int left, long seconds) {

        /** Says so in the headers of an answer. */
        void tell(HttpServletResponse response) {
            response.setHeader("RateLimit-Policy", "\"minute\";q=%d;w=60".formatted(limit));
            response.setHeader("RateLimit", "\"minute\";r=%d;t=%d".formatted(left, seconds));
            if (!answered) response.setHeader(HttpHeaders.RETRY_AFTER, String.valueOf(seconds));
        }
    }

    /** Counts a request of one who asks. */
    Counted count(String who, int limit) {
        long now = clock.getAsLong();
        int count =
                counted.get(who + " " + now / WINDOW, k -> new AtomicInteger()).incrementAndGet();
        return new Counted(count <= limit, limit, Math.max(0, limit - count), (WINDOW - now % WINDOW + 999) / 1000);
    }
}
