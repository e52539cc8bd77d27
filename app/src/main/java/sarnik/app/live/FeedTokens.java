package sarnik.app.live;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.SecureRandom;
import java.util.Base64;
import sarnik.app.secret.Hashes;

/** The words by which whoever sends readings shows that it may; only their hash is kept. */
final class FeedTokens {

    private static final SecureRandom CHANCE = new SecureRandom();

    private FeedTokens() {}

    static String make() {
        byte[] bytes = new byte[32];
        CHANCE.nextBytes(bytes);
        return "feed_" + Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
    }

    /** Whether a token is that of a hash, in the same time whether it is or not. */
    static boolean fits(String token, String hash) {
        return MessageDigest.isEqual(
                Hashes.of(token).getBytes(StandardCharsets.US_ASCII), hash.getBytes(StandardCharsets.US_ASCII));
    }
}
