package sarnik.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Set;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.language.Language;

@DisplayName("Numbers as people type them")
class TypedNumbersTest {

    private static final Set<String> KNOWN = Set.of("101", "102", "103", "1", "2", "4.711");

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "en | over 1,000 and | over 1000 and",
                "en | 12,345,678.5 | 12345678.5",
                "en | over 1,000, warm | over 1000, warm",
                "en | 2.5, 3 | 2.5, 3",
                "de | 12.345,5, warm | 12345.5, warm",
                "de | mehr als 1.000. | mehr als 1000.",
                "en | 1,000,00 | 1,000,00",
                "en | 1.000 | 1.000",
                "en | 3,5 | 3.5",
                "en | 2025,2026 | 2025,2026",
                "en | 3 000 or 4 | 3000 or 4",
                "en | May 3 2026 | May 3 2026",
                "en | 101,102,103 | 101,102,103",
                "en | 101 102 | 101 102",
                "en | 1,2 | 1,2",
                "de | 1.000 | 1000",
                "de | 1.234.567,25 | 1234567.25",
                "de | 4.711 | 4.711",
                "de | 1,000 | 1.000",
                "de | 1.5.2026 | 1.5.2026",
                "de | 1.5 | 1.5",
                "fr | 1 234,5 | 1234.5",
                "es | 10.000 | 10000",
                "pt | soria,zamora | soria,zamora"
            })
    void areOneWordEach(String tag, String typed, String joined) {
        assertThat(Language.in(new Language(tag, sentence -> null), () -> TypedNumbers.joined(typed, KNOWN::contains)))
                .isEqualTo(joined);
    }
}
