package sarnik.app.dataset;

import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import sarnik.format.TableFile;
import sarnik.place.Placing;
import sarnik.table.Reading;

/**
 * Files on their way in: chosen, looked at, not yet kept.
 *
 * @param id unguessable
 * @param person whose they are
 * @param files where they wait
 * @param fileNames what they were called
 * @param intake how they are read
 * @param reading what came of reading them
 * @param kind the format of the first
 * @param sheets names of the sheets or layers of which one is read; empty where there is only one
 * @param areas whether they hold areas, which could be kept as a boundary set
 * @param asks what has to be said before its shapes have a place, a sentence; null where all is known
 * @param guess how its rows might be placed; null when nothing fits
 * @param refreshes the dataset whose newer rows they hold; null for a new dataset
 * @param comparison how they differ from the rows that it serves; null for a new dataset
 * @param stays where its rows are, of which only some were read, and which stay there; null where all were read
 * @param days which of day and month comes first, where nothing in the file tells; null where that is told
 */
record BringIn(
        String id,
        long person,
        List<Path> files,
        List<String> fileNames,
        Intake intake,
        Reading reading,
        TableFile.Kind kind,
        List<String> sheets,
        boolean areas,
        String asks,
        Placing guess,
        Long refreshes,
        Comparison comparison,
        Stays stays,
        Days days) {

    /**
     * Which of day and month comes first in dates that can be read either way.
     *
     * @param columns where such dates stand
     * @param why what the guess rests on, a clause
     */
    record Days(boolean monthFirst, List<String> columns, String why) {

        /** What is said of it. */
        public String words() {
            return "The dates in %s can be read either way. They are taken with the %s first, %s."
                    .formatted(String.join(", ", columns), monthFirst ? "month" : "day", why);
        }
    }

    /** The first file's name without its ending, as a name for the dataset. */
    String name() {
        String name = fileNames
                .get(0)
                .replaceFirst("\\.[A-Za-z0-9]{1,7}$", "")
                .replace('_', ' ')
                .replace('-', ' ')
                .strip();
        return name.isEmpty() ? "Table" : name.substring(0, 1).toUpperCase(Locale.ROOT) + name.substring(1);
    }

    /** What the files are called, in one line. */
    String fileName() {
        return fileNames.size() == 1 ? fileNames.get(0) : fileNames.get(0) + " and " + (fileNames.size() - 1) + " more";
    }
}
