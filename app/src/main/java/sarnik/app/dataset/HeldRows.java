package sarnik.app.dataset;

import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import org.springframework.util.unit.DataSize;
import sarnik.app.MemoryBudget;

/** Which versions are held in memory: those that do not take too much of it. The others are asked where they are kept. */
@Component
class HeldRows {

    private volatile long most;

    HeldRows(MemoryBudget memory, @Value("${sarnik.largest-held}") DataSize largest) {
        most = largest.toBytes() > 0 ? largest.toBytes() : memory.total() / 2;
    }

    /** @param bytes that the version takes in memory @param columns how many it has */
    boolean holds(long bytes, int columns) {
        // What stands in several tables cannot be asked there.
        return bytes <= most || columns > RowStore.WIDEST;
    }

    /**
     * How much the columns of a file may take while it is read; of one that takes more, some rows are held. Bytes.
     *
     * @param columns how many it has
     */
    long whileRead(int columns) {
        return columns > RowStore.WIDEST ? Long.MAX_VALUE : most;
    }

    /** Says from which size on rows are not held, in bytes; for tests. @return how it was until now */
    long upTo(long bytes) {
        long before = most;
        most = bytes;
        return before;
    }
}
