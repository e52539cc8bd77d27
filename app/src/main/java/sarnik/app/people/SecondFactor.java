package sarnik.app.people;

import com.eatthepath.otp.TimeBasedOneTimePasswordGenerator;
import io.nayuki.qrcodegen.QrCode;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.security.InvalidKeyException;
import java.security.MessageDigest;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.OptionalLong;
import javax.crypto.spec.SecretKeySpec;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import sarnik.app.web.RefusedException;

/**
 * The second factor: a code of six digits that an app of the person's works out of a shared secret and the time, anew
 * every thirty seconds (TOTP, RFC 6238). A code is taken once, and one step of time before and after now, since clocks
 * differ. Who has lost the app signs in with one of ten rescue words, each of which works once.
 */
@Service
public class SecondFactor {

    private static final Duration STEP = Duration.ofSeconds(30);
    private static final int SECRET_BYTES = 20;
    private static final int RESCUE_WORDS = 10;
    private static final int RESCUE_LETTERS = 12;
    private static final String BASE32 = "ABCDEFGHIJKLMNOPQRSTUVWXYZ234567";

    /** Without those that are taken for each other. */
    private static final String LETTERS = "abcdefghjkmnpqrstuvwxyz23456789";

    private final PersonRepository people;
    private final RescueWordRepository rescues;
    private final PasswordEncoder encoder;
    private final Clock clock;
    private final SecureRandom chance = new SecureRandom();
    private final TimeBasedOneTimePasswordGenerator generator = new TimeBasedOneTimePasswordGenerator(STEP);

    @Autowired
    SecondFactor(PersonRepository people, RescueWordRepository rescues, PasswordEncoder encoder) {
        this(people, rescues, encoder, Clock.systemUTC());
    }

    SecondFactor(PersonRepository people, RescueWordRepository rescues, PasswordEncoder encoder, Clock clock) {
        this.people = people;
        this.rescues = rescues;
        this.encoder = encoder;
        this.clock = clock;
    }

    /** A fresh secret, base 32 (RFC 4648). */
    String secret() {
        byte[] bytes = new byte[SECRET_BYTES];
        chance.nextBytes(bytes);
        StringBuilder text = new StringBuilder();
        for (int bit = 0; bit < bytes.length * 8; bit += 5) {
            int at = bit / 8;
            int pair = (bytes[at] & 0xFF) << 8 | (at + 1 < bytes.length ? bytes[at + 1] & 0xFF : 0);
            text.append(BASE32.charAt(pair >> 11 - bit % 8 & 31));
        }
        return text.toString();
    }

    private static byte[] bytes(String base32) {
        byte[] bytes = new byte[base32.length() * 5 / 8];
        int held = 0;
        int bits = 0;
        int at = 0;
        for (char letter : base32.toCharArray()) {
            held = held << 5 | BASE32.indexOf(letter);
            bits += 5;
            if (bits >= 8) {
                bits -= 8;
                bytes[at++] = (byte) (held >> bits);
            }
        }
        return bytes;
    }

    /** What an app reads to set itself up (the key URI that such apps share). */
    static String address(String secret, String signIn) {
        String name =
                URLEncoder.encode("Sarnik:" + signIn, StandardCharsets.UTF_8).replace("+", "%20");
        return "otpauth://totp/%s?secret=%s&issuer=Sarnik".formatted(name, secret);
    }

    /** The same as a path of squares to be seen by a camera, on a square of {@link #squares} units. */
    static String picture(String address) {
        QrCode code = QrCode.encodeText(address, QrCode.Ecc.MEDIUM);
        StringBuilder path = new StringBuilder();
        for (int y = 0; y < code.size; y++)
            for (int x = 0; x < code.size; x++) if (code.getModule(x, y)) path.append("M%d %dh1v1h-1z".formatted(x, y));
        return path.toString();
    }

    static int squares(String address) {
        return QrCode.encodeText(address, QrCode.Ecc.MEDIUM).size;
    }

    /** The code of a moment. */
    String code(String secret, Instant at) {
        try {
            return generator.generateOneTimePasswordString(
                    new SecretKeySpec(bytes(secret), generator.getAlgorithm()), at, Locale.ROOT);
        } catch (InvalidKeyException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    private OptionalLong stepOf(String secret, String typed) {
        String digits = typed == null ? "" : typed.replaceAll("\\s", "");
        for (int away : new int[] {0, -1, 1}) {
            Instant at = clock.instant().plus(STEP.multipliedBy(away));
            if (MessageDigest.isEqual(
                    code(secret, at).getBytes(StandardCharsets.US_ASCII), digits.getBytes(StandardCharsets.UTF_8)))
                return OptionalLong.of(at.getEpochSecond() / STEP.toSeconds());
        }
        return OptionalLong.empty();
    }

    /**
     * Sets the second factor up.
     *
     * @param typed a code of it, which shows that the app has it
     * @return the rescue words, which are told once
     */
    @Transactional
    List<String> begin(long person, String secret, String typed) {
        OptionalLong step = stepOf(secret, typed);
        if (step.isEmpty())
            throw new RefusedException(
                    "That is not the code that the app shows now. Type the newest one; the clock of the phone has to be right.");
        Person of = needed(person);
        of.factor(secret);
        of.take(step.getAsLong());
        rescues.deleteByPersonId(person);
        List<String> words = new ArrayList<>();
        for (int i = 0; i < RESCUE_WORDS; i++) {
            StringBuilder word = new StringBuilder();
            for (int letter = 0; letter < RESCUE_LETTERS; letter++)
                word.append(letter > 0 && letter % 4 == 0 ? "-" : "")
                        .append(LETTERS.charAt(chance.nextInt(LETTERS.length())));
            words.add(word.toString());
            rescues.save(new RescueWord(person, encoder.encode(word)));
        }
        return words;
    }

    /** Whether what somebody types is a code of now, or a rescue word; either works once. */
    @Transactional
    boolean takes(long person, String typed) {
        Person of = needed(person);
        if (of.getFactor() == null) return false;
        OptionalLong step = stepOf(of.getFactor(), typed);
        if (step.isPresent()) return of.take(step.getAsLong());
        String word = typed == null ? "" : typed.strip().toLowerCase(Locale.ROOT);
        if (word.length() != RESCUE_LETTERS + 2) return false;
        for (RescueWord rescue : rescues.findByPersonId(person))
            if (encoder.matches(word, rescue.getHash())) {
                rescues.delete(rescue);
                return true;
            }
        return false;
    }

    /** How many rescue words are left. */
    @Transactional(readOnly = true)
    int left(long person) {
        return rescues.findByPersonId(person).size();
    }

    /** Takes the second factor away. */
    @Transactional
    void end(long person) {
        needed(person).factor(null);
        rescues.deleteByPersonId(person);
    }

    private Person needed(long id) {
        return people.findWithLockById(id).orElseThrow(() -> RefusedException.gone("person"));
    }
}
