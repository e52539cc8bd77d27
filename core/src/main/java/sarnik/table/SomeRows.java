package sarnik.table;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;

/** Some rows of a table that comes in parts, spread evenly over it: every n-th, n a power of two. */
final class SomeRows {

    /** With more rows than this every second one is left. */
    static final int MOST = 1 << 16;

    private final long mostBytes;
    private List<Piece> pieces = new ArrayList<>();
    private long step = 1;
    private long rows;
    private long bytes;

    /** @param first the number of its first row among all; the others follow in steps */
    private record Piece(long first, Table rows) {}

    /**
     * @param mostBytes when those that are left take more, every second one is left as well
     */
    SomeRows(long mostBytes) {
        this.mostBytes = mostBytes;
    }

    /** Takes the next part. */
    void add(Table part) {
        pieces.add(every(new Piece(rows, part), 1));
        rows += part.rows();
        bytes += part.bytes();
        while (taken() > MOST || taken() > 1 && takenBytes() > mostBytes) {
            long before = step;
            step *= 2;
            pieces = new ArrayList<>(pieces.stream()
                    .map(piece -> every(piece, before))
                    .filter(piece -> piece.rows.rows() > 0)
                    .toList());
        }
    }

    /** Of the rows of a piece, which stand so far apart, those whose number is a multiple of the step. */
    private Piece every(Piece piece, long apart) {
        if (step == apart) return piece;
        long from = Math.floorMod(-piece.first, step);
        int[] picked = IntStream.range(0, piece.rows.rows())
                .filter(row -> Math.floorMod(row * apart - from, step) == 0)
                .toArray();
        return new Piece(piece.first + from, piece.rows.pick(picked));
    }

    private long taken() {
        return pieces.stream().mapToLong(piece -> piece.rows.rows()).sum();
    }

    private long takenBytes() {
        return pieces.stream().mapToLong(piece -> piece.rows.bytes()).sum();
    }

    /** How many rows there were. */
    long rows() {
        return rows;
    }

    /** Bytes that all parts took. */
    long bytes() {
        return bytes;
    }

    /** Those that are left, in their order. */
    Table table() {
        return Table.joined(pieces.stream().map(Piece::rows).toList());
    }
}
