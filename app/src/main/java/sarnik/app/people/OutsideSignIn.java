package sarnik.app.people;

import java.util.Map;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.oauth2.client.oidc.userinfo.OidcUserRequest;
import org.springframework.security.oauth2.client.oidc.userinfo.OidcUserService;
import org.springframework.security.oauth2.client.registration.ClientRegistrations;
import org.springframework.security.oauth2.client.registration.SupplierClientRegistrationRepository;
import org.springframework.security.oauth2.core.OAuth2AuthenticationException;
import org.springframework.security.oauth2.core.OAuth2Error;
import org.springframework.security.oauth2.core.oidc.OidcIdToken;
import org.springframework.security.oauth2.core.oidc.OidcUserInfo;
import org.springframework.security.oauth2.core.oidc.user.OidcUser;
import org.springframework.stereotype.Component;
import sarnik.app.SarnikProperties;
import sarnik.app.audit.Act;
import sarnik.app.audit.ActLog;

/**
 * Signing in by a provider outside (OpenID Connect, code flow), where one is named in the settings. A steward says by
 * what the provider knows somebody; whoever comes without that is let in as a reader where the settings say so, else
 * not.
 */
@Component
public class OutsideSignIn {

    private static final String BEGIN = "/sign-in/outside";
    private static final String BACK = "/sign-in/back-from-outside";
    private static final String ONE = "provider";

    private final SarnikProperties.OpenId settings;
    private final PeopleService people;
    private final Sessions sessions;
    private final ActLog acts;

    OutsideSignIn(SarnikProperties properties, PeopleService people, Sessions sessions, ActLog acts) {
        this.settings = properties.openId();
        this.people = people;
        this.sessions = sessions;
        this.acts = acts;
    }

    /** Somebody whom a provider has shown in. */
    private static final class Shown extends SignedIn implements OidcUser {

        private static final long serialVersionUID = 2L;

        private final OidcUser by;

        Shown(Person person, OidcUser by) {
            super(person);
            this.by = by;
        }

        @Override
        public Map<String, Object> getClaims() {
            return by.getClaims();
        }

        @Override
        public OidcUserInfo getUserInfo() {
            return by.getUserInfo();
        }

        @Override
        public OidcIdToken getIdToken() {
            return by.getIdToken();
        }

        @Override
        public Map<String, Object> getAttributes() {
            return by.getAttributes();
        }

        @Override
        public String getName() {
            return getUsername();
        }
    }

    /** Whether there is a provider to sign in by. */
    public boolean isOffered() {
        return settings != null
                && settings.issuer() != null
                && !settings.issuer().isBlank();
    }

    /** What the provider is called where it is offered. */
    public String name() {
        return settings.name() == null || settings.name().isBlank() ? "your organisation" : settings.name();
    }

    /** Where signing in by it begins. */
    public String address() {
        return BEGIN + "/" + ONE;
    }

    void addTo(HttpSecurity http) throws Exception {
        if (!isOffered()) return;
        // What the provider says of itself is asked for when somebody comes by it: it may be away when Sarnik starts.
        var registrations = new SupplierClientRegistrationRepository(
                () -> new org.springframework.security.oauth2.client.registration.InMemoryClientRegistrationRepository(
                        ClientRegistrations.fromIssuerLocation(settings.issuer())
                                .registrationId(ONE)
                                .clientId(settings.clientId())
                                .clientSecret(settings.clientSecret())
                                .redirectUri("{baseUrl}" + BACK)
                                .scope("openid", "profile", "email")
                                .build()));
        http.oauth2Login(login -> login.loginPage("/sign-in")
                .clientRegistrationRepository(registrations)
                .authorizationEndpoint(begin -> begin.baseUri(BEGIN))
                .redirectionEndpoint(back -> back.baseUri(BACK))
                .userInfoEndpoint(info -> info.oidcUserService(this::shown))
                .successHandler((request, response, person) -> {
                    acts.keep(person.getName(), Act.Kind.SIGNED_IN, "signed in by " + name(), request.getRemoteAddr());
                    sessions.begin(request, ((SignedIn) person.getPrincipal()).id());
                    response.sendRedirect("/");
                })
                .failureHandler((request, response, wrong) -> {
                    boolean isUnknown = wrong instanceof OAuth2AuthenticationException refused
                            && UNKNOWN.equals(refused.getError().getErrorCode());
                    acts.keep(
                            "somebody unknown",
                            Act.Kind.KEPT_OUT,
                            "was kept out: "
                                    + (isUnknown ? "nobody here is known to " + name() + " so" : "it did not vouch"),
                            request.getRemoteAddr());
                    response.sendRedirect("/sign-in?outside=" + (isUnknown ? "unknown" : "failed"));
                }));
    }

    private static final String UNKNOWN = "unknown_here";

    private OidcUser shown(OidcUserRequest request) {
        OidcUser by = new OidcUserService().loadUser(request);
        String claim = settings.claim() == null || settings.claim().isBlank() ? "sub" : settings.claim();
        Object known = by.getClaims().get(claim);
        // An address that the provider has not checked may be somebody else's.
        if (claim.equals("email") && !Boolean.TRUE.equals(by.getEmailVerified())) known = null;
        Person person = known == null
                ? null
                : people.knownOutside(known.toString())
                        .orElseGet(() -> settings.admits() ? people.admit(known(by), known(by, claim)) : null);
        if (person == null || person.isClosed()) throw new OAuth2AuthenticationException(new OAuth2Error(UNKNOWN));
        return new Shown(person, by);
    }

    private static String known(OidcUser by, String claim) {
        return String.valueOf(by.getClaims().get(claim));
    }

    /** What somebody may be called here who comes for the first time. */
    private static String known(OidcUser by) {
        String name = by.getFullName();
        return name == null || name.isBlank() ? by.getSubject() : name;
    }
}
