package sarnik.app.secret;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.Base64;
import java.util.Optional;
import javax.crypto.Cipher;
import javax.crypto.SecretKey;
import javax.crypto.SecretKeyFactory;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.PBEKeySpec;
import javax.crypto.spec.SecretKeySpec;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/**
 * Passwords for other programs (brokers, databases), which have to be known to be used: kept in the database under a
 * key that is not in it (AES-256 in GCM, NIST SP 800-38D). The key is made of the word in {@code sarnik.secret}, the
 * same for all instances, or else lies in a file of its own in the work directory.
 */
@Component
public class Secrets {

    private static final String FORM = "s1:";
    private static final int NONCE_BYTES = 12;
    private static final int TAG_BITS = 128;
    private static final int KEY_BYTES = 32;
    private static final int SHORTEST_WORD = 16;

    /** OWASP's advice of 2023 for PBKDF2 with HMAC-SHA-256. */
    private static final int ROUNDS = 600_000;

    private final SecureRandom chance = new SecureRandom();
    private final String word;
    private final Path file;
    private SecretKey key;

    Secrets(@Value("${sarnik.secret:}") String word, @Value("${sarnik.work-directory}") Path work) {
        if (!word.isEmpty() && word.length() < SHORTEST_WORD)
            throw new IllegalStateException(
                    "The word in SARNIK_SECRET is too short: it needs %d characters or more.".formatted(SHORTEST_WORD));
        this.word = word;
        this.file = work.resolve("secret.key");
    }

    /** What is kept of a password. */
    public String seal(String password) {
        byte[] nonce = new byte[NONCE_BYTES];
        chance.nextBytes(nonce);
        try {
            byte[] sealed = cipher(Cipher.ENCRYPT_MODE, nonce, 0).doFinal(password.getBytes(StandardCharsets.UTF_8));
            byte[] all = new byte[NONCE_BYTES + sealed.length];
            System.arraycopy(nonce, 0, all, 0, NONCE_BYTES);
            System.arraycopy(sealed, 0, all, NONCE_BYTES, sealed.length);
            return FORM + Base64.getEncoder().encodeToString(all);
        } catch (GeneralSecurityException unheardOf) {
            throw new IllegalStateException(unheardOf);
        }
    }

    /**
     * The password that was kept; empty where it was sealed under another key, as after a backup was read elsewhere.
     */
    public Optional<String> open(String sealed) {
        if (!sealed.startsWith(FORM)) return Optional.empty();
        try {
            byte[] all = Base64.getDecoder().decode(sealed.substring(FORM.length()));
            if (all.length < NONCE_BYTES) return Optional.empty();
            byte[] opened = cipher(Cipher.DECRYPT_MODE, all, 0).doFinal(all, NONCE_BYTES, all.length - NONCE_BYTES);
            return Optional.of(new String(opened, StandardCharsets.UTF_8));
        } catch (GeneralSecurityException | IllegalArgumentException another) {
            return Optional.empty();
        }
    }

    private Cipher cipher(int mode, byte[] nonce, int at) throws GeneralSecurityException {
        Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
        cipher.init(mode, key(), new GCMParameterSpec(TAG_BITS, nonce, at, NONCE_BYTES));
        return cipher;
    }

    private synchronized SecretKey key() throws GeneralSecurityException {
        if (key == null) key = word.isEmpty() ? ofFile() : ofWord();
        return key;
    }

    private SecretKey ofWord() throws GeneralSecurityException {
        byte[] salt = "sarnik passwords for other programs".getBytes(StandardCharsets.UTF_8);
        return new SecretKeySpec(
                SecretKeyFactory.getInstance("PBKDF2WithHmacSHA256")
                        .generateSecret(new PBEKeySpec(word.toCharArray(), salt, ROUNDS, KEY_BYTES * 8))
                        .getEncoded(),
                "AES");
    }

    private SecretKey ofFile() {
        try {
            if (!Files.exists(file)) make();
            byte[] bytes = Base64.getDecoder().decode(Files.readString(file).strip());
            if (bytes.length != KEY_BYTES) throw new IOException("it is not whole");
            return new SecretKeySpec(bytes, "AES");
        } catch (IOException | IllegalArgumentException unread) {
            throw new IllegalStateException("The key in %s cannot be read: %s".formatted(file, unread.getMessage()));
        }
    }

    /** Written beside its place and moved there, so that another instance never meets half of it. */
    private void make() throws IOException {
        Files.createDirectories(file.getParent());
        byte[] bytes = new byte[KEY_BYTES];
        chance.nextBytes(bytes);
        Path beside = Files.createTempFile(
                file.getParent(),
                "secret",
                ".part",
                PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
        try {
            Files.writeString(beside, Base64.getEncoder().encodeToString(bytes), StandardOpenOption.WRITE);
            Files.createLink(file, beside);
        } catch (FileAlreadyExistsException madeMeanwhile) {
            // That one holds.
        } finally {
            Files.deleteIfExists(beside);
        }
    }
}
