package sarnik.app.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import sarnik.dashboard.Theme;

@DisplayName("The colours of themes")
class ThemesTest {

    private static final Pattern BLOCK = Pattern.compile("(?m)^(:root[^{]*)\\{([^}]*)}");
    private static final Pattern COLOUR = Pattern.compile("--([a-z]+): (#[0-9A-Fa-f]{6})");

    static Stream<String> moods() {
        return Arrays.stream(Theme.values())
                .map(theme -> theme.name().toLowerCase(Locale.ROOT))
                .flatMap(theme -> Stream.of(theme + " day", theme + " night"));
    }

    /** The colours by name that hold under a theme and mood. */
    private static Map<String, String> colours(String theme, boolean night) throws IOException {
        String style = Files.readString(Path.of("web/style/sarnik.css")) + "\n"
                + Files.readString(Path.of("web/style/themes.css"));
        Map<String, String> colours = new HashMap<>();
        String own = theme.equals("field") ? "" : "[data-theme=\"%s\"]".formatted(theme);
        Matcher block = BLOCK.matcher(style);
        while (block.find()) {
            if (!block.group(1).strip().equals(":root" + own + (night ? "[data-mood=\"night\"]" : ""))) continue;
            Matcher colour = COLOUR.matcher(block.group(2));
            while (colour.find()) colours.put(colour.group(1), colour.group(2));
        }
        return colours;
    }

    /** Relative luminance and contrast as in WCAG 2.2. */
    private static double contrast(String one, String other) {
        double a = luminance(one);
        double b = luminance(other);
        return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
    }

    private static double luminance(String hex) {
        double[] light = new double[3];
        for (int i = 0; i < 3; i++) {
            double part = Integer.parseInt(hex.substring(1 + 2 * i, 3 + 2 * i), 16) / 255.0;
            light[i] = part <= 0.04045 ? part / 12.92 : Math.pow((part + 0.055) / 1.055, 2.4);
        }
        return 0.2126 * light[0] + 0.7152 * light[1] + 0.0722 * light[2];
    }

    @ParameterizedTest
    @MethodSource("moods")
    void areReadByEveryone(String mood) throws IOException {
        String theme = mood.substring(0, mood.indexOf(' '));
        Map<String, String> colours = colours(theme, mood.endsWith("night"));
        assertThat(colours).containsKeys("paper", "leaf", "ink", "faint", "line", "land", "water");
        for (String ground : List.of("paper", "leaf")) {
            assertThat(contrast(colours.get("ink"), colours.get(ground))).isGreaterThan(7);
            for (String words : List.of("faint", "loch", "rust", "lichen", "sun"))
                assertThat(contrast(colours.get(words), colours.get(ground)))
                        .as("%s on %s of %s", words, ground, mood)
                        .isGreaterThan(4.5);
        }
        assertThat(contrast(colours.get("town"), colours.get("land"))).isGreaterThan(4.5);
        assertThat(colours.get("land")).isNotEqualTo(colours.get("water"));
    }
}
