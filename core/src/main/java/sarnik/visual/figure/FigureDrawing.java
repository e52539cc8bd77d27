package sarnik.visual.figure;

import java.util.List;
import sarnik.visual.Drawing;
import sarnik.visual.Trail;

/**
 * @param words what is measured
 * @param text the figure, brief
 * @param full the figure, whole
 * @param value the same as a number; null where there is none, or where it is no amount
 * @param percent whether it is written per cent
 * @param against the comparison in words: "12 % above the target of 500"; null for none
 * @param state good, watch or bad; null for no judgement
 * @param line a tiny line, heights 0 to 1, NaN for a gap; null for none
 * @param lineWords what the line shows: "by month, January 2025 to May 2026"; null for none
 * @param sign path of a small sign; null for none
 * @param sure where a rate may well lie, in words; null where the figure is no rate of which that is known
 * @param unsure whether it rests on too few to be sure
 */
public record FigureDrawing(
        String title,
        String words,
        String text,
        String full,
        Double value,
        boolean percent,
        String against,
        String state,
        List<Double> line,
        String lineWords,
        String sign,
        String sure,
        boolean unsure,
        Trail trail)
        implements Drawing {}
