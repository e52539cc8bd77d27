package sarnik.app.people;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.function.LongSupplier;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.springframework.core.convert.support.GenericConversionService;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.context.SecurityContextImpl;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Stranger;
import sarnik.demo.SarnikClient;

@ExtendWith(RunningSarnik.class)
@DisplayName("What a session holds, in the database")
class SessionSetupTest {

    private final GenericConversionService conversion = new SessionSetup().springSessionConversionService();

    private byte[] written(Object part) {
        return conversion.convert(part, byte[].class);
    }

    private Object read(byte[] bytes) {
        return conversion.convert(bytes, Object.class);
    }

    @Test
    void comesBackAsItWas(RunningSarnik sarnik) {
        SignedIn ana = sarnik.person("ana");
        Object back = read(written(new SecurityContextImpl(
                UsernamePasswordAuthenticationToken.authenticated(ana, null, ana.getAuthorities()))));
        SignedIn again =
                (SignedIn) ((SecurityContextImpl) back).getAuthentication().getPrincipal();
        assertThat(again).isEqualTo(ana);
        assertThat(again.role()).isEqualTo(Role.ANALYST);
        assertThat(again.getUsername()).isEqualTo("ana");
        assertThat(read(written(Instant.EPOCH))).isEqualTo(Instant.EPOCH);
    }

    @Test
    void isNotThereWhereItIsSomethingElse() throws Exception {
        byte[] stranger = written(new Stranger());
        assertThat(read(stranger)).as("a class of another package").isNull();
        assertThat(Stranger.isMade()).isFalse();
        assertThat(read("not an object at all".getBytes(StandardCharsets.UTF_8)))
                .isNull();
        byte[] whole = written("a word of some length");
        assertThat(read(Arrays.copyOf(whole, whole.length - 4))).as("cut off").isNull();
        assertThat(read(new byte[0])).isNull();
    }

    /** Scripts and styles are asked for with each page, also while the database is away. */
    @Test
    void isNotLookedForWithWhatShips(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        String cookie = ana.cookies().replaceAll(".*sarnik-session=([^;]+).*", "$1");
        String session = new String(Base64.getDecoder().decode(cookie), StandardCharsets.UTF_8);
        LongSupplier lastAsked = () -> sarnik.bean(JdbcClient.class)
                .sql("SELECT last_access_time FROM sessions WHERE session_id = ?")
                .param(session)
                .query(Long.class)
                .single();
        assertThat(ana.get("/").statusCode()).isEqualTo(200);
        long before = lastAsked.getAsLong();
        for (String shipped : List.of("/css/sarnik.css", "/js/ask-for.js", "/favicon.svg"))
            assertThat(ana.get(shipped).statusCode()).as(shipped).isEqualTo(200);
        assertThat(lastAsked.getAsLong()).isEqualTo(before);
        assertThat(ana.get("/").statusCode()).isEqualTo(200);
        assertThat(lastAsked.getAsLong()).isGreaterThan(before);
    }
}
