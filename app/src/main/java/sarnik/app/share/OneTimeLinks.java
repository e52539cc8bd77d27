package sarnik.app.share;

import java.time.Duration;
import java.time.Instant;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import sarnik.app.dashboard.DashboardService;
import sarnik.app.dashboard.Takes;

/** Links that the program makes for itself, and takes away once it has used them. */
@Component
public class OneTimeLinks {

    private static final Duration LASTS = Duration.ofMinutes(10);

    private final ShareLinkRepository links;
    private final DashboardService dashboards;
    private final TransactionTemplate transaction;

    OneTimeLinks(ShareLinkRepository links, DashboardService dashboards, TransactionTemplate transaction) {
        this.links = links;
        this.dashboards = dashboards;
        this.transaction = transaction;
    }

    /** A link that is there until it is closed. */
    public final class Made implements AutoCloseable {
        private final long id;
        private final String path;

        private Made(ShareLink link) {
            id = link.getId();
            path = "/shown/" + link.getSecret();
        }

        /** Its address without the host. */
        public String path() {
            return path;
        }

        @Override
        public void close() {
            transaction.executeWithoutResult(t -> links.deleteById(id));
        }
    }

    /**
     * Makes a link to what readers see.
     *
     * @param dashboard its id, or its title
     * @throws IllegalArgumentException when there is none, or several of the title, or it is not published
     */
    public Made make(String dashboard) {
        DashboardService.Published of = dashboards.published(dashboard);
        ShareLink link = new ShareLink(of.id(), Links.secret(), of.owner(), Instant.now());
        link.say("for a picture", ShareLink.OpensTo.ANYONE, "[]", Instant.now().plus(LASTS), "[]", Takes.ALL, "[]");
        return new Made(transaction.execute(t -> links.saveAndFlush(link)));
    }
}
