package sarnik.visual;

import static sarnik.language.Language.phrase;

import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Slot;
import sarnik.data.LoadedDataset;
import sarnik.place.PlacedTable;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnType;

/** The clock that times are read by: as they are written, that of a time zone, or that of each place. */
public final class Clock {

    /** JSON Schema of it. */
    public static final String SCHEMA = "{\"type\": [\"string\", \"null\"], \"maxLength\": 60}";

    /** Zones that are named after places. */
    private static final Set<String> ZONES = ZoneId.getAvailableZoneIds().stream()
            .filter(name ->
                    name.matches("(Africa|America|Antarctica|Asia|Atlantic|Australia|Europe|Indian|Pacific)/.*"))
            .collect(Collectors.toCollection(TreeSet::new));

    private Clock() {}

    /**
     * Writes the slot of a clock; of days there is none.
     *
     * @param zone null to read times as they are
     * @param time column of the times
     */
    public static void write(BriefLine line, String pointer, String zone, LoadedDataset dataset, String time) {
        Column column = dataset.table().find(time).orElse(null);
        if (column == null || column.type() != ColumnType.TIME) return;
        List<Option> options = new ArrayList<>();
        Optional<Column> own = dataset.table().find(PlacedTable.ZONE);
        if (own.isPresent())
            options.add(new Option("each place’s own clock", "where the times are those of UTC", PlacedTable.ZONE));
        Set<String> zones = new LinkedHashSet<>();
        own.ifPresent(c -> zones.addAll(((CodedColumn) c).dictionary()));
        zones.add("UTC");
        zones.addAll(ZONES);
        for (String name : zones)
            options.add(new Option("the clock of " + name, "where the times are those of UTC", name));
        line.say(zone == null ? " " : ", read by ");
        line.may(Slot.within(pointer, "clock"), zone == null ? "+ clock" : words(zone), zone == null, options);
    }

    /** "the clock of Europe/Madrid". */
    public static String words(String zone) {
        return zone.equals(PlacedTable.ZONE) ? phrase("each place’s own clock") : phrase("the clock of {0}", zone);
    }
}
