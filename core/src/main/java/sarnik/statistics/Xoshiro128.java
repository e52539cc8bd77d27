package sarnik.statistics;

/**
 * Numbers by chance that are the same wherever they are drawn: xoshiro128** of Blackman and Vigna 2018, ACM
 * Transactions on Mathematical Software 47:36, in whole numbers of 32 bits only, which browsers reckon quickly.
 */
final class Xoshiro128 {

    private int a;
    private int b;
    private int c;
    private int d;

    /** @param seed the same gives the same */
    Xoshiro128(int seed) {
        int[] state = new int[4];
        int at = seed;
        for (int i = 0; i < state.length; i++) {
            at += 0x9E3779B9;
            // The finaliser of MurmurHash3, so that seeds next to each other begin far apart.
            int mixed = (at ^ at >>> 16) * 0x85EBCA6B;
            mixed = (mixed ^ mixed >>> 13) * 0xC2B2AE35;
            state[i] = mixed ^ mixed >>> 16;
        }
        a = state[0];
        b = state[1];
        c = state[2];
        d = state[3] | 1;
    }

    private int next() {
        int result = Integer.rotateLeft(b * 5, 7) * 9;
        int shifted = b << 9;
        c ^= a;
        d ^= b;
        b ^= c;
        a ^= d;
        c ^= shifted;
        d = Integer.rotateLeft(d, 11);
        return result;
    }

    /**
     * A number from 0 to below a bound; for bounds far below two thousand millions each is as likely, but for crumbs.
     */
    int next(int bound) {
        return (next() >>> 1) % bound;
    }
}
