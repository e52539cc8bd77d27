package sarnik.app.secret;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** What is kept of words that were drawn by chance, by which they are known again and from which nobody learns them. */
public final class Hashes {

    private Hashes() {}

    /** SHA-256 in hexadecimal digits: what is hashed is long and drawn by chance, so that no slower way is needed. */
    public static String of(String word) {
        try {
            return HexFormat.of()
                    .formatHex(MessageDigest.getInstance("SHA-256").digest(word.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException missing) {
            throw new IllegalStateException(missing);
        }
    }
}
