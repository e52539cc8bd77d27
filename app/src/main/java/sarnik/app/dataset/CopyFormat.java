package sarnik.app.dataset;

/**
 * The numbers of PostgreSQL's binary COPY format (PostgreSQL documentation, COPY, "Binary Format").
 */
final class CopyFormat {

    static final byte[] SIGNATURE = {'P', 'G', 'C', 'O', 'P', 'Y', '\n', (byte) 0xFF, '\r', '\n', 0};

    /** 2000-01-01 as days and as seconds since 1970-01-01; dates and times are counted from there. */
    static final int EPOCH_DAYS = 10_957;

    static final long EPOCH_SECONDS = EPOCH_DAYS * 86_400L;

    private CopyFormat() {}
}
