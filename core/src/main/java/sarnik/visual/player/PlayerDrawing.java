package sarnik.visual.player;

import java.util.List;
import sarnik.visual.Drawing;
import sarnik.visual.Trail;

/**
 * @param steps texts of the steps, one after the other without a gap
 * @param labels what each is called
 * @param spread how many rows each has, in hundredths of the most; -1 where the data have none at all
 * @param mode what is shown of a moment
 * @param window how many steps a window shows
 * @param speed steps a second
 * @param repeat whether it begins anew at the end
 * @param words the words of the moment, with {@code {moment}} in its place
 * @param step what it moves by, in words
 * @param note what is to be known of it, such as periods without data; may be empty
 * @param trail of the rows whose spread is drawn
 */
public record PlayerDrawing(
        String title,
        List<String> steps,
        List<String> labels,
        List<Integer> spread,
        Player.Mode mode,
        int window,
        int speed,
        boolean repeat,
        String words,
        String step,
        String note,
        Trail trail)
        implements Drawing {}
