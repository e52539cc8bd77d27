package sarnik.dashboard;

import java.util.List;
import sarnik.narrow.Registry;
import sarnik.narrow.choice.ChoiceKind;
import sarnik.narrow.dates.DatesKind;
import sarnik.narrow.newest.NewestKind;
import sarnik.narrow.numbers.NumbersKind;
import sarnik.narrow.place.InPlaceKind;
import sarnik.narrow.rules.RulesKind;
import sarnik.narrow.search.SearchKind;
import sarnik.narrow.threshold.ThresholdKind;
import sarnik.narrow.yesno.YesNoKind;
import sarnik.visual.bars.BarsKind;
import sarnik.visual.button.ButtonKind;
import sarnik.visual.details.DetailsKind;
import sarnik.visual.difference.DifferenceKind;
import sarnik.visual.figure.FigureKind;
import sarnik.visual.filter.SheetFilterKind;
import sarnik.visual.funnel.FunnelKind;
import sarnik.visual.grid.GridKind;
import sarnik.visual.key.KeyKind;
import sarnik.visual.lines.LinesKind;
import sarnik.visual.list.ListKind;
import sarnik.visual.map.MapKind;
import sarnik.visual.picture.PictureKind;
import sarnik.visual.player.PlayerKind;
import sarnik.visual.ring.RingKind;
import sarnik.visual.scatter.ScatterKind;
import sarnik.visual.table.TableKind;
import sarnik.visual.unlikely.UnlikelyKind;
import sarnik.visual.words.WordsKind;

/** The one place that names the kinds of visuals and filters. A new kind is a room and a line here. */
public final class Kinds {

    public static final Registry ALL = new Registry(
            List.of(
                    new MapKind(),
                    new BarsKind(),
                    new FigureKind(),
                    new LinesKind(),
                    new RingKind(),
                    new ScatterKind(),
                    new GridKind(),
                    new TableKind(),
                    new ListKind(),
                    new DetailsKind(),
                    new WordsKind(),
                    new KeyKind(),
                    new PictureKind(),
                    new ButtonKind(),
                    new SheetFilterKind(),
                    new PlayerKind(),
                    new DifferenceKind(),
                    new UnlikelyKind(),
                    new FunnelKind()),
            List.of(
                    new YesNoKind(),
                    new ChoiceKind(),
                    new DatesKind(),
                    new NumbersKind(),
                    new SearchKind(),
                    new ThresholdKind(),
                    new NewestKind(),
                    new InPlaceKind(),
                    new RulesKind()));

    private Kinds() {}
}
