package sarnik.app.share;

import static sarnik.language.Language.phrase;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.net.URI;
import java.net.URISyntaxException;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.security.SecureRandom;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.springframework.http.HttpStatus;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import sarnik.app.dashboard.DashboardService;
import sarnik.app.dashboard.Takes;
import sarnik.app.dataset.DatasetService;
import sarnik.app.dataset.Description;
import sarnik.app.dataset.RowRules;
import sarnik.app.dataset.SeenDatasets;
import sarnik.app.people.PeopleService;
import sarnik.app.people.SignedIn;
import sarnik.app.rights.May;
import sarnik.app.rights.Rights;
import sarnik.app.rights.Who;
import sarnik.app.web.DayWords;
import sarnik.app.web.RefusedException;
import sarnik.data.ViewerRule;
import sarnik.table.ColumnType;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Makes links by which published dashboards are shown, opens and ends them. */
@Service
class Links {

    private static final TypeReference<List<Who>> NAMED = new TypeReference<>() {};
    private static final TypeReference<List<SeenDatasets.Bound>> BOUND = new TypeReference<>() {};
    private static final TypeReference<List<String>> SITES = new TypeReference<>() {};

    private static final int MOST = 200;
    private static final int MOST_PARTS = 50;
    private static final int LONGEST_NAME = 80;
    private static final int SHORTEST_PASSWORD = 6;
    private static final int LONGEST_PASSWORD = 200;
    private static final int SECRET_BYTES = 24;
    private static final Duration PASS_LASTS = Duration.ofDays(30);

    private static final SecureRandom CHANCE = new SecureRandom();

    private final ShareLinkRepository links;
    private final DashboardService dashboards;
    private final DatasetService datasets;
    private final RowRules rules;
    private final PeopleService people;
    private final Rights rights;
    private final PasswordEncoder encoder;
    private final JsonMapper mapper;

    /** When a link was last said to be used: once a minute is enough. */
    private final Cache<Long, Boolean> used = Caffeine.newBuilder()
            .maximumSize(10_000)
            .expireAfterWrite(Duration.ofMinutes(1))
            .build();

    Links(
            ShareLinkRepository links,
            DashboardService dashboards,
            DatasetService datasets,
            RowRules rules,
            PeopleService people,
            Rights rights,
            PasswordEncoder encoder,
            JsonMapper mapper) {
        this.links = links;
        this.dashboards = dashboards;
        this.datasets = datasets;
        this.rules = rules;
        this.people = people;
        this.rights = rights;
        this.encoder = encoder;
        this.mapper = mapper;
    }

    /**
     * Rows that a link keeps to: those whose column has one of some values.
     *
     * @param values numbers, days and yes/no in canonical text form
     */
    record Keeping(long dataset, String column, List<String> values) {}

    /**
     * A link as its author wants it.
     *
     * @param named to whom it opens, where it opens to those named
     * @param ends the last day on which it opens, of UTC; null for no end
     * @param password asked for before anything is shown; empty for none, null for what it has
     * @param keeping rows that it keeps to; null for what it has
     * @param sites origins of pages that may show it in a frame, such as https://example.org
     */
    record Wanted(
            String name,
            ShareLink.OpensTo opensTo,
            List<Who> named,
            LocalDate ends,
            String password,
            List<Keeping> keeping,
            Takes takes,
            List<String> sites) {}

    /**
     * A link as its author sees it.
     *
     * @param path its address without the host
     * @param to to whom it opens, in words
     * @param bound what it keeps to, a condition for each dataset
     * @param warnings what its bearers will miss, a sentence each
     */
    public record Listed(
            long id,
            String name,
            String path,
            ShareLink.OpensTo opensTo,
            List<Who> named,
            String to,
            LocalDate ends,
            boolean open,
            boolean password,
            List<String> bound,
            Takes takes,
            List<String> sites,
            String by,
            String made,
            String lastUsed,
            List<String> warnings) {}

    @Transactional(readOnly = true)
    List<Listed> of(long dashboard, SignedIn person) {
        dashboards.check(dashboard, May.HAND_ON, person);
        return links.findByDashboardIdOrderByMadeAtDesc(dashboard).stream()
                .map(this::listed)
                .toList();
    }

    private Listed listed(ShareLink link) {
        List<Who> named = mapper.readValue(link.getNamed(), NAMED);
        List<SeenDatasets.Bound> bound = bound(link);
        String to = link.getOpensTo() == ShareLink.OpensTo.NAMED
                ? named.stream().map(rights::nameOf).collect(Collectors.joining(", "))
                : link.getOpensTo().words();
        return new Listed(
                link.getId(),
                link.getName(),
                "/shown/" + link.getSecret(),
                link.getOpensTo(),
                named,
                to,
                link.getEndsAt() == null
                        ? null
                        : LocalDate.ofInstant(link.getEndsAt(), ZoneOffset.UTC).minusDays(1),
                link.isOpen(Instant.now()),
                link.getPassword() != null,
                bound.stream()
                        .map(b -> "%s: %s"
                                .formatted(
                                        datasets.description(b.dataset())
                                                .map(Description::name)
                                                .orElse("a dataset that has gone"),
                                        b.rule()))
                        .toList(),
                link.takes(),
                mapper.readValue(link.getSites(), SITES),
                people.nameOf(link.getMadeBy()),
                DayWords.of(link.getMadeAt()),
                link.getLastUsedAt() == null ? null : DayWords.of(link.getLastUsedAt()),
                warnings(link));
    }

    private List<String> warnings(ShareLink link) {
        if (link.getOpensTo() != ShareLink.OpensTo.ANYONE) return List.of();
        List<String> warnings = new ArrayList<>();
        for (long id : dashboards.datasets(link.getDashboardId()))
            datasets.description(id)
                    .filter(d -> d.viewerRule() != null
                            && !new ViewerRule(d.viewerRule()).named().isEmpty())
                    .ifPresent(d -> warnings.add(
                            "“%s” shows each viewer other rows (%s). Nothing is known of whoever bears this link, so it shows none of them."
                                    .formatted(d.name(), d.viewerRule())));
        return warnings;
    }

    private List<SeenDatasets.Bound> bound(ShareLink link) {
        return mapper.readValue(link.getBound(), BOUND);
    }

    /** Makes a link. */
    @Transactional
    Listed make(long dashboard, Wanted wanted, SignedIn person) {
        dashboards.check(dashboard, May.HAND_ON, person);
        if (links.findByDashboardIdOrderByMadeAtDesc(dashboard).size() >= MOST)
            throw new RefusedException("%d links lead here already. Take old ones away first.".formatted(MOST));
        ShareLink link = new ShareLink(dashboard, secret(), person.id(), Instant.now());
        say(link, wanted, "[]");
        return listed(links.save(link));
    }

    /** What stands in an address that nobody guesses. */
    static String secret() {
        byte[] chance = new byte[SECRET_BYTES];
        CHANCE.nextBytes(chance);
        return Base64.getUrlEncoder().withoutPadding().encodeToString(chance);
    }

    /** Changes what a link shows, and to whom. */
    @Transactional
    Listed change(long dashboard, long id, Wanted wanted, SignedIn person) {
        dashboards.check(dashboard, May.HAND_ON, person);
        ShareLink link = needed(dashboard, id);
        say(link, wanted, link.getBound());
        return listed(link);
    }

    private ShareLink needed(long dashboard, long id) {
        return links.findByIdAndDashboardId(id, dashboard).orElseThrow(() -> RefusedException.gone("link"));
    }

    private void say(ShareLink link, Wanted wanted, String boundBefore) {
        String name = wanted.name() == null || wanted.name().isBlank()
                ? "A link"
                : wanted.name().strip();
        if (name.length() > LONGEST_NAME)
            throw new RefusedException("A link's name has up to %d characters.".formatted(LONGEST_NAME));
        ShareLink.OpensTo opensTo = wanted.opensTo() == null ? ShareLink.OpensTo.SIGNED_IN : wanted.opensTo();
        List<Who> named = wanted.named() == null || opensTo != ShareLink.OpensTo.NAMED ? List.of() : wanted.named();
        if (named.stream().anyMatch(java.util.Objects::isNull) || named.size() > MOST_PARTS)
            throw new RefusedException(
                    "Up to %d people and groups are named, and each is somebody.".formatted(MOST_PARTS));
        if (opensTo == ShareLink.OpensTo.NAMED && named.isEmpty())
            throw new RefusedException("Name at least one person or group to whom it opens.");
        Instant ends = wanted.ends() == null
                ? null
                : wanted.ends().plusDays(1).atStartOfDay(ZoneOffset.UTC).toInstant();
        if (ends != null && ends.isBefore(Instant.now()))
            throw new RefusedException("The last day lies in the past. Choose one that is still to come.");
        String bound = wanted.keeping() == null ? boundBefore : mapper.writeValueAsString(bound(wanted.keeping()));
        List<String> sites = new ArrayList<>();
        for (String site : wanted.sites() == null ? List.<String>of() : wanted.sites())
            if (site != null && !site.isBlank()) sites.add(origin(site));
        if (sites.size() > MOST_PARTS) throw new RefusedException("Up to %d sites are named.".formatted(MOST_PARTS));
        link.say(
                name,
                opensTo,
                mapper.writeValueAsString(named),
                ends,
                bound,
                wanted.takes() == null ? Takes.ALL : wanted.takes(),
                mapper.writeValueAsString(sites));
        if (wanted.password() != null) link.lock(wanted.password().isEmpty() ? null : hashed(wanted.password()));
    }

    private String hashed(String password) {
        if (password.length() < SHORTEST_PASSWORD || password.length() > LONGEST_PASSWORD || password.isBlank())
            throw new RefusedException(
                    "A link's password has %d to %d characters.".formatted(SHORTEST_PASSWORD, LONGEST_PASSWORD));
        return encoder.encode(password);
    }

    private List<SeenDatasets.Bound> bound(List<Keeping> keepings) {
        if (keepings.size() > MOST_PARTS)
            throw new RefusedException("A link keeps to up to %d conditions.".formatted(MOST_PARTS));
        List<SeenDatasets.Bound> bound = new ArrayList<>();
        for (Keeping keeping : keepings) {
            if (keeping == null
                    || keeping.column() == null
                    || keeping.values() == null
                    || keeping.values().isEmpty())
                throw new RefusedException("Say which column keeps to which values.");
            ColumnType type = datasets.needed(keeping.dataset())
                    .dataset()
                    .table()
                    .find(keeping.column())
                    .filter(c -> !keeping.column().startsWith("@"))
                    .orElseThrow(() ->
                            new RefusedException("There is no column “%s” to keep to.".formatted(keeping.column())))
                    .type();
            String rule =
                    ViewerRule.oneOf(keeping.column(), type, keeping.values()).text();
            rules.checked(keeping.dataset(), rule);
            bound.add(new SeenDatasets.Bound(keeping.dataset(), rule));
        }
        return bound;
    }

    /** The origin of a site's address: scheme, host and port, as browsers compare them. */
    static String origin(String site) {
        try {
            URI read = new URI(site.strip());
            String scheme = read.getScheme() == null ? "" : read.getScheme().toLowerCase(Locale.ROOT);
            if (read.getHost() == null || !(scheme.equals("https") || scheme.equals("http"))) throw unfitSite(site);
            return scheme + "://" + read.getHost().toLowerCase(Locale.ROOT)
                    + (read.getPort() < 0 ? "" : ":" + read.getPort());
        } catch (URISyntaxException unfit) {
            throw unfitSite(site);
        }
    }

    private static RefusedException unfitSite(String site) {
        return new RefusedException(
                "“%s” is no site. Write where its pages begin, such as https://example.org.".formatted(site.strip()));
    }

    /** Ends a link: it opens to nobody from now on. */
    @Transactional
    void end(long dashboard, long id, SignedIn person) {
        dashboards.check(dashboard, May.HAND_ON, person);
        needed(dashboard, id).end(Instant.now());
    }

    /** Takes a link away that has ended. */
    @Transactional
    void remove(long dashboard, long id, SignedIn person) {
        dashboards.check(dashboard, May.HAND_ON, person);
        ShareLink link = needed(dashboard, id);
        if (link.isOpen(Instant.now())) throw new RefusedException("This link is still open. End it first.");
        links.delete(link);
    }

    /**
     * What a bearer holds.
     *
     * @param secret what stands in the address
     * @param pass says that the password was typed; null for none
     */
    record Borne(String secret, String pass) {

        String text() {
            return pass == null ? secret : secret + "~" + pass;
        }

        static Borne of(String text) {
            int at = text.indexOf('~');
            return at < 0 ? new Borne(text, null) : new Borne(text.substring(0, at), text.substring(at + 1));
        }
    }

    /** A link that opens. */
    record Opened(
            long id,
            long dashboard,
            ShareLink.OpensTo opensTo,
            List<Who> named,
            boolean locked,
            List<SeenDatasets.Bound> bound,
            Takes takes,
            List<String> sites) {}

    /**
     * The link of a secret.
     *
     * @param pass what was given for its password; null for nothing
     * @throws RefusedException with 404 where there is none, with 410 where it has ended
     */
    @Transactional
    public Opened open(Borne borne) {
        ShareLink link = links.findBySecret(borne.secret())
                .orElseThrow(
                        () -> new RefusedException(
                                HttpStatus.NOT_FOUND,
                                phrase(
                                        "This link leads nowhere. It may have been copied in part, or taken away; ask whoever gave it to you.")));
        if (!link.isOpen(Instant.now()))
            throw new RefusedException(
                    HttpStatus.GONE, phrase("This link has ended. Ask whoever gave it to you for another."));
        if (used.getIfPresent(link.getId()) == null) {
            used.put(link.getId(), true);
            link.used(Instant.now());
        }
        return new Opened(
                link.getId(),
                link.getDashboardId(),
                link.getOpensTo(),
                mapper.readValue(link.getNamed(), NAMED),
                link.getPassword() != null && !isPass(link, borne.pass()),
                bound(link),
                link.takes(),
                mapper.readValue(link.getSites(), SITES));
    }

    /** A pass for a link's password; empty where it is not the one. */
    @Transactional(readOnly = true)
    public Optional<String> pass(String secret, String password) {
        ShareLink link = links.findBySecret(secret).orElseThrow(() -> RefusedException.gone("link"));
        if (link.getPassword() == null
                || password == null
                || password.length() > LONGEST_PASSWORD
                || !encoder.matches(password, link.getPassword())) return Optional.empty();
        long until = Instant.now().plus(PASS_LASTS).getEpochSecond();
        return Optional.of(until + "." + signed(link, until));
    }

    private static boolean isPass(ShareLink link, String pass) {
        if (pass == null || !pass.matches("\\d{1,12}\\.[0-9a-f]{64}")) return false;
        long until = Long.parseLong(pass.substring(0, pass.indexOf('.')));
        return Instant.now().getEpochSecond() < until
                && MessageDigest.isEqual(
                        (until + "." + signed(link, until)).getBytes(StandardCharsets.US_ASCII),
                        pass.getBytes(StandardCharsets.US_ASCII));
    }

    /** Signed with the hash of the password, which nobody else knows and which changes with it. */
    private static String signed(ShareLink link, long until) {
        try {
            Mac mac = Mac.getInstance("HmacSHA256");
            mac.init(new SecretKeySpec(link.getPassword().getBytes(StandardCharsets.UTF_8), "HmacSHA256"));
            return HexFormat.of()
                    .formatHex(mac.doFinal((link.getId() + "." + until).getBytes(StandardCharsets.US_ASCII)));
        } catch (GeneralSecurityException impossible) {
            throw new IllegalStateException(impossible);
        }
    }
}
