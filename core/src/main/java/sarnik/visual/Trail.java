package sarnik.visual;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import sarnik.data.ColumnWords;
import sarnik.query.RowTrail;
import sarnik.scale.ValueWords;

/**
 * How the rows of a visual came about.
 *
 * @param steps the row trail
 * @param empty a sentence that says why nothing is left, null where something is
 * @param lacking a sentence that says how many rows are not in the figures, null where they are few
 */
public record Trail(List<RowTrail.Step> steps, String empty, String lacking) {

    /** From this share of the rows on, those that are not in the figures are told where the figures stand. */
    private static final double MANY = .1;

    private static final Written PERCENT = new Written(ValueWords.NUMBER, null, true);

    private static final Pattern ADDED = Pattern.compile("(@[^" + RowTrail.END_OF_NAME + "]*)" + RowTrail.END_OF_NAME);

    /** The trail of an answer; column names that placing adds are put in words. */
    public static Trail of(RowTrail answered) {
        RowTrail trail = new RowTrail(answered.steps().stream()
                .map(s -> new RowTrail.Step(worded(s.words()), s.left(), s.unit()))
                .toList());
        return new Trail(trail.steps(), trail.rows() > 0 ? null : whatTookTheLast(trail), lacking(trail));
    }

    /** The trail of what has no rows. */
    public static Trail none(String why) {
        return new Trail(List.of(), why, null);
    }

    private static String lacking(RowTrail trail) {
        List<String> sentences = new ArrayList<>();
        for (RowTrail.Step step : trail.steps()) {
            double share = (double) step.left() / trail.rows();
            if (step.unit() == RowTrail.Unit.WITHOUT && share >= MANY)
                sentences.add(phrase("{0}, {1} of the rows.", step.words(), PERCENT.brief(share)));
        }
        return sentences.isEmpty() ? null : String.join(" ", sentences);
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
