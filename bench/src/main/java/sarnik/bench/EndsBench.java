package sarnik.bench;

import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import sarnik.standins.Balancer;

/**
 * Sudden ends: people edit, publish, bring tables in and refresh them, and meanwhile the application or PostgreSQL is
 * killed, over and over. After each end every step that was acknowledged has to be there, and no half thing.
 */
final class EndsBench {

    private static final long LONGEST_BEFORE_MILLIS = 2500;
    private static final int SAID_EVERY = 10;
    /** Of fewer ends than this it is said after each how far they have come. */
    private static final int SAID_EACH = 50;

    private static final long AMISS_MILLIS = 3000;

    private final String base;
    private final Server server;
    private final Random chance = new Random(7);

    EndsBench(String base) {
        this.base = base;
        this.server = new Server(base);
    }

    /**
     * @param applications how often the application is killed
     * @param databases how often PostgreSQL is
     */
    void run(Report report, int applications, int databases) throws Exception {
        report.title("%,d sudden ends of the application and %,d of PostgreSQL while four people work"
                .formatted(applications, databases));
        int ends = applications + databases;
        whilePeopleWork(new Hands(base, server), false, ends, end -> {
            // Spread evenly, whichever there are more of.
            boolean isDatabase = (long) end * databases / ends > (long) (end - 1) * databases / ends;
            if (isDatabase) server.killDatabase();
            else server.killApplication();
        });
    }

    /**
     * The disk on which all is kept is full for a while, over and over.
     *
     * @param times how often
     */
    void fullDisk(Report report, int times) throws Exception {
        report.title("%,d times a full disk while four people work".formatted(times));
        whilePeopleWork(new Hands(base, server), false, times, end -> server.fillDisk(AMISS_MILLIS));
    }

    /**
     * The disk on which all is kept fails and takes nothing more, over and over; each time the machine is made anew
     * with what is on the disk.
     *
     * @param times how often
     */
    void failingDisk(Report report, int times) throws Exception {
        report.title("%,d times a disk that takes nothing more while four people work".formatted(times));
        whilePeopleWork(new Hands(base, server), false, times, end -> server.failDisk(AMISS_MILLIS));
    }

    /**
     * Two instances behind a balancer, of which one is killed, over and over; the other answers at once, and the one
     * that was killed is started again beside it.
     *
     * @param times how often
     */
    void twoInstances(Report report, int times) throws Exception {
        report.title("%,d sudden ends of one of two instances while four people, devices and a reader work"
                .formatted(times));
        Server other = server.beside();
        // It stays until the demo is stopped, which stops what stands beside it as well.
        try (Balancer balancer = Balancer.start(0, List.of(base, other.base()))) {
            Hands hands = new Hands(balancer.address(), server);
            whilePeopleWork(hands, true, times, end -> {
                Server one = end % 2 == 0 ? server : other;
                Server.Instance ended = one.kill();
                // The other alone answers for all that was acknowledged.
                hands.check();
                one.begin(ended);
            });
        }
    }

    private interface Trouble {
        void strike(int number) throws Exception;
    }

    private void whilePeopleWork(Hands hands, boolean withDevices, int ends, Trouble trouble) throws Exception {
        hands.begin(withDevices);
        long began = System.nanoTime();
        for (int end = 1; end <= ends; end++) {
            TimeUnit.MILLISECONDS.sleep(1 + (long) (chance.nextDouble() * LONGEST_BEFORE_MILLIS));
            trouble.strike(end);
            hands.check();
            if (ends < SAID_EACH || end % SAID_EVERY == 0 || end == ends)
                System.out.printf(
                        Locale.ENGLISH,
                        "%58s %,d ends in %,.0f s; acknowledged and there: %s%n",
                        "",
                        end,
                        (System.nanoTime() - began) / 1e9,
                        hands.said());
        }
        hands.end();
    }
}
