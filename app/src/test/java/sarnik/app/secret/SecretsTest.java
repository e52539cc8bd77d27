package sarnik.app.secret;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

@DisplayName("Passwords for other programs")
class SecretsTest {

    private static final String PASSWORD = "contraseña de la fuente";

    @TempDir
    private Path work;

    @Test
    void areKeptUnderAKeyThatLiesInAFileOfItsOwn() throws IOException {
        Secrets secrets = new Secrets("", work);
        String sealed = secrets.seal(PASSWORD);
        assertThat(sealed).doesNotContain(PASSWORD, "fuente");
        assertThat(secrets.seal(PASSWORD)).as("the same twice").isNotEqualTo(sealed);
        assertThat(secrets.open(sealed)).contains(PASSWORD);
        assertThat(new Secrets("", work).open(sealed)).as("after a new start").contains(PASSWORD);
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(work.resolve("secret.key"))))
                .isEqualTo("rw-------");
    }

    @Test
    void areNotOpenedUnderAnotherKeyOrWhenTheyWereTouched() throws IOException {
        Secrets secrets = new Secrets("", work);
        String sealed = secrets.seal(PASSWORD);
        assertThat(new Secrets("", Files.createDirectory(work.resolve("other"))).open(sealed))
                .isEmpty();
        assertThat(secrets.open(sealed.substring(0, sealed.length() - 6))).isEmpty();
        char last = sealed.charAt(20);
        assertThat(secrets.open(sealed.substring(0, 20) + (last == 'A' ? 'B' : 'A') + sealed.substring(21)))
                .isEmpty();
        for (String broken : List.of("", "s1:", "s1:%%%", PASSWORD))
            assertThat(secrets.open(broken)).as(broken).isEmpty();
    }

    @Test
    void areOpenedByAllInstancesOfOneWord() {
        String sealed = new Secrets("one word for all instances", work).seal(PASSWORD);
        assertThat(new Secrets("one word for all instances", work.resolve("elsewhere")).open(sealed))
                .contains(PASSWORD);
        assertThat(new Secrets("another word for instances", work).open(sealed)).isEmpty();
        assertThatThrownBy(() -> new Secrets("too short", work)).hasMessageContaining("16 characters");
        assertThat(work.resolve("secret.key")).doesNotExist();
    }

    @Test
    void ofSeveralInstancesThatBeginAtOnceHaveOneKey() {
        List<Secrets> all =
                IntStream.range(0, 16).mapToObj(i -> new Secrets("", work)).toList();
        List<String> sealed =
                all.parallelStream().map(one -> one.seal(PASSWORD)).toList();
        for (Secrets one : all)
            assertThat(sealed).allSatisfy(s -> assertThat(one.open(s)).contains(PASSWORD));
    }

    @Test
    void sayWhichKeyCannotBeRead() throws IOException {
        Files.writeString(work.resolve("secret.key"), "c2hvcnQ=");
        assertThatThrownBy(() -> new Secrets("", work).seal(PASSWORD)).hasMessageContaining("secret.key");
    }
}
