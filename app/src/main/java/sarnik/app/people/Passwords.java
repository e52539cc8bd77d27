package sarnik.app.people;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Base64;
import java.util.HashSet;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.security.crypto.factory.PasswordEncoderFactories;
import org.springframework.security.crypto.password.PasswordEncoder;
import sarnik.app.web.RefusedException;

/**
 * Which passwords are taken, and how they are kept. bcrypt reads 72 bytes; longer ones are hashed before, so that all
 * of them
 * counts (OWASP, "Password Storage Cheat Sheet"). The commonest 10,000 are refused (list of the package zxcvbn 4.4.2,
 * MIT).
 */
final class Passwords implements PasswordEncoder {

    static final int SHORTEST = 10;
    private static final int LONGEST = 1000;
    private static final int READ_BY_BCRYPT = 72;

    private final PasswordEncoder encoder = PasswordEncoderFactories.createDelegatingPasswordEncoder();

    private static final class Common {
        private static final Set<String> WORDS = read();

        private static Set<String> read() {
            try (var lines = new BufferedReader(new InputStreamReader(
                    Passwords.class.getResourceAsStream("common-passwords.txt"), StandardCharsets.UTF_8))) {
                return lines.lines().collect(Collectors.toCollection(HashSet::new));
            } catch (IOException missing) {
                throw new UncheckedIOException(missing);
            }
        }
    }

    /**
     * Checks a password that is to be set.
     *
     * @param about sign-in and name of the person, which would be tried first
     * @throws RefusedException when it is too short, too long, blank or among the first that are tried
     */
    static void check(String password, String... about) {
        if (password == null || password.length() < SHORTEST)
            throw new RefusedException(
                    "The password is too short: it needs at least %d characters.".formatted(SHORTEST));
        if (password.length() > LONGEST)
            throw new RefusedException("The password is longer than %,d characters.".formatted(LONGEST));
        if (password.isBlank()) throw new RefusedException("The password is blank. Choose letters, digits or signs.");
        if (password.indexOf('\0') >= 0)
            throw new RefusedException("The password holds a character that cannot be typed again.");
        String plain = password.strip().toLowerCase(Locale.ROOT);
        boolean own = false;
        for (String word : about)
            own |= word != null && !word.isBlank() && plain.equals(word.strip().toLowerCase(Locale.ROOT));
        if (own
                || plain.chars().distinct().count() < 3
                || Common.WORDS.contains(plain)
                || Common.WORDS.contains(plain.replaceAll("[0-9!?.]+$", "")) && plain.matches("[a-z]+[0-9!?.]{1,4}")) {
            throw new RefusedException(
                    "This password is among the first that anybody tries. Choose one that nobody guesses, such "
                            + "as four words that have nothing to do with each other.");
        }
    }

    private static String readable(CharSequence raw) {
        byte[] bytes = raw.toString().getBytes(StandardCharsets.UTF_8);
        if (bytes.length <= READ_BY_BCRYPT) return raw.toString();
        try {
            return Base64.getEncoder()
                    .encodeToString(MessageDigest.getInstance("SHA-384").digest(bytes));
        } catch (NoSuchAlgorithmException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    @Override
    public String encode(CharSequence raw) {
        return encoder.encode(readable(raw));
    }

    @Override
    public boolean matches(CharSequence raw, String encoded) {
        return raw.length() <= LONGEST && encoder.matches(readable(raw), encoded);
    }

    @Override
    public boolean upgradeEncoding(String encoded) {
        return encoder.upgradeEncoding(encoded);
    }
}
