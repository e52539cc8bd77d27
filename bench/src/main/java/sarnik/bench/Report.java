package sarnik.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import tools.jackson.databind.json.JsonMapper;

/** Gathers figures, prints them as they come, writes them as JSON. */
final class Report {

    /**
     * One figure beside another.
     *
     * @param what what was done
     * @param ours Sarnik's figure
     * @param unit what the figures count
     * @param beside what it is compared with, or the aim
     * @param theirs the other figure
     * @param ratio how many times better Sarnik is; below 1 where it is worse
     * @param aim the ratio wished for
     */
    record Line(String what, double ours, String unit, String beside, double theirs, double ratio, double aim) {
        boolean isMet() {
            return ratio >= aim;
        }
    }

    private final List<Line> lines = new ArrayList<>();

    /** Whether work is done once only, to see that it runs. */
    private final boolean brief;

    Report(boolean brief) {
        this.brief = brief;
    }

    static double once(Work work) throws Exception {
        long began = System.nanoTime();
        work.run();
        return Math.max(1e-3, (System.nanoTime() - began) / 1e6);
    }

    void title(String words) {
        System.out.printf("%n%s%n%-58s %12s   %-26s %10s %8s %8s%n", words, "", "Sarnik", "beside", "", "ratio", "aim");
    }

    /** A time where less is better. */
    void time(String what, double ours, String beside, double theirs, double aim) {
        add(new Line(what, ours, "ms", beside, theirs, theirs / ours, aim));
    }

    /** A size where less is better, thousands of bytes. */
    void size(String what, double ours, String beside, double theirs, double aim) {
        add(new Line(what, ours, "kB", beside, theirs, theirs / ours, aim));
    }

    /** A rate where more is better. */
    void rate(String what, double ours, String unit, String beside, double theirs, double aim) {
        add(new Line(what, ours, unit, beside, theirs, ours / theirs, aim));
    }

    /** A share where less is better, with the most that is wished for. */
    void error(String what, double ours, double most) {
        Line line = new Line(what, ours, "", "at most", most, most / Math.max(1e-9, ours), 1);
        lines.add(line);
        System.out.printf(
                Locale.ENGLISH,
                "%-58s %,9.4f      %-26s %,9.4f %7.2f× %7.2f  %s%n",
                line.what,
                line.ours,
                line.beside,
                line.theirs,
                line.ratio,
                line.aim,
                line.isMet() ? "met" : "not met");
    }

    private void add(Line line) {
        lines.add(line);
        System.out.printf(
                Locale.ENGLISH,
                "%-58s %,9.1f %-3s  %-26s %,9.1f %7.2f× %7.2f  %s%n",
                line.what,
                line.ours,
                line.unit,
                line.beside,
                line.theirs,
                line.ratio,
                line.aim,
                brief ? "run once, cold" : line.isMet() ? "met" : "not met");
    }

    void json(Path file) throws IOException {
        Files.writeString(
                file,
                JsonMapper.builder().build().writerWithDefaultPrettyPrinter().writeValueAsString(lines));
    }

    /** Something to be timed. */
    interface Work {
        void run() throws Exception;
    }

    /**
     * Median of several runs after a warm-up, milliseconds.
     *
     * @param warmSeconds how long the work is run beforehand, at least once; Java needs some hundred runs of a short
     *     work
     *     to be compiled in full
     */
    double median(double warmSeconds, int runs, Work work) throws Exception {
        if (brief) return once(work);
        long until = System.nanoTime() + (long) (warmSeconds * 1e9);
        do work.run();
        while (System.nanoTime() < until);
        double[] times = new double[runs];
        for (int i = 0; i < runs; i++) {
            long began = System.nanoTime();
            work.run();
            times[i] = (System.nanoTime() - began) / 1e6;
        }
        return median(times);
    }

    static double median(double[] values) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        return sorted[sorted.length / 2];
    }
}
