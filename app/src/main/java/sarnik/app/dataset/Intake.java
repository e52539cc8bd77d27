package sarnik.app.dataset;

import sarnik.table.FileChoices;
import sarnik.table.Shaping;

/**
 * How a dataset's files are read and what is made of their columns.
 *
 * @param choices what a person has corrected of the file's form
 * @param shaping what a person has decided about its columns
 */
record Intake(FileChoices choices, Shaping shaping) {

    static final Intake NONE = new Intake(FileChoices.NONE, Shaping.NONE);

    Intake {
        if (choices == null) choices = FileChoices.NONE;
        if (shaping == null) shaping = Shaping.NONE;
    }

    /** This intake with the month first in dates that can be read either way. */
    Intake withMonthFirst() {
        return new Intake(choices, shaping.withMonthFirst(true));
    }
}
