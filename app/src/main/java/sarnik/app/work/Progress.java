package sarnik.app.work;

import java.util.concurrent.CancellationException;
import sarnik.place.Watch;

/** How far work has come, and whether it is to stop. Written by the worker, read by who asks. */
public final class Progress implements Watch {

    private volatile String words;
    private volatile long done;
    private volatile long all;
    private volatile boolean stopped;

    public Progress(String words) {
        this.words = words;
    }

    /**
     * Goes on to the next part of the work.
     *
     * @param words what is being done, such as "Placing the rows"
     * @throws CancellationException when it is to stop
     */
    public void next(String words) {
        at(0, 0);
        this.words = words;
    }

    /** @throws CancellationException when it is to stop */
    @Override
    public void at(long done, long all) {
        if (stopped) throw new CancellationException();
        this.done = done;
        this.all = all;
    }

    public void stop() {
        stopped = true;
    }

    public boolean isStopped() {
        return stopped;
    }

    public String words() {
        return words;
    }

    public long done() {
        return done;
    }

    public long all() {
        return all;
    }
}
