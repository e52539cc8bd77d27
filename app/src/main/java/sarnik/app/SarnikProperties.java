package sarnik.app;

import java.nio.file.Path;
import java.time.Duration;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.util.unit.DataSize;

/**
 * Sarnik's own settings.
 *
 * @param largestFile the largest file that can be brought in
 * @param workDirectory where files wait between being chosen and being kept
 * @param memoryShare share of the heap that loaded datasets may fill, 0 to 1
 * @param mostWaiting how many bring-ins of one person wait at once to be looked over
 * @param proxies regular expression of the addresses of proxies in front, whose X-Forwarded headers are believed
 * @param patience how long headers, and the body of a request besides its bytes, may be on their way
 * @param openId a provider to sign in by; null for none
 * @param firstPeople people made when there are none: {@code sign-in:role:password}, a line each
 */
@ConfigurationProperties("sarnik")
public record SarnikProperties(
        DataSize largestFile,
        Path workDirectory,
        double memoryShare,
        int mostWaiting,
        String proxies,
        Duration patience,
        OpenId openId,
        String firstPeople) {

    /**
     * A provider of OpenID Connect.
     *
     * @param issuer its address, below which its configuration stands; empty for none
     * @param clientId by what it knows Sarnik
     * @param clientSecret what it has given Sarnik
     * @param name what it is called on the page on which people sign in
     * @param claim what tells people apart: sub, email (where it is checked), or another
     * @param admits whether somebody whom no steward has named yet is let in, as a reader
     */
    public record OpenId(
            String issuer, String clientId, String clientSecret, String name, String claim, boolean admits) {}
}
