package sarnik.visual;

import static sarnik.language.Language.phrase;

import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import sarnik.data.ColumnWords;
import sarnik.query.RowTrail;

/**
 * How the rows of a visual came about.
 *
 * @param steps the row trail
 * @param empty a sentence that says why nothing is left, null where something is
 */
public record Trail(List<RowTrail.Step> steps, String empty) {

    private static final Pattern ADDED = Pattern.compile("(@[^" + RowTrail.END_OF_NAME + "]*)" + RowTrail.END_OF_NAME);

    /** The trail of an answer; column names that placing adds are put in words. */
    public static Trail of(RowTrail answered) {
        RowTrail trail = new RowTrail(answered.steps().stream()
                .map(s -> new RowTrail.Step(worded(s.words()), s.left(), s.unit()))
                .toList());
        return new Trail(trail.steps(), trail.rows() > 0 ? null : whatTookTheLast(trail));
    }

    /** The words of a step with the names of columns that placing adds put in words. */
    private static String worded(String words) {
        Matcher found = ADDED.matcher(words);
        StringBuilder text = new StringBuilder();
        int from = 0;
        while (found.find()) {
            text.append(words, from, found.start()).append(ColumnWords.of(found.group(1)));
            from = found.end();
        }
        return text.append(words.substring(from)).toString();
    }

    private static String whatTookTheLast(RowTrail trail) {
        for (RowTrail.Step step : trail.steps()) {
            if (step.left() == 0) return phrase("No row is left after this step: {0}.", step.words());
        }
        return phrase("There is no row.");
    }
}
