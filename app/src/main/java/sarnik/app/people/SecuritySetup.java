package sarnik.app.people;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpMethod;
import org.springframework.http.HttpStatus;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.AuthorizeHttpRequestsConfigurer;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.access.AccessDeniedHandlerImpl;
import org.springframework.security.web.access.intercept.AuthorizationFilter;
import org.springframework.security.web.authentication.HttpStatusEntryPoint;
import org.springframework.security.web.authentication.LoginUrlAuthenticationEntryPoint;
import org.springframework.security.web.authentication.SavedRequestAwareAuthenticationSuccessHandler;
import org.springframework.security.web.authentication.UsernamePasswordAuthenticationFilter;
import org.springframework.security.web.context.NullSecurityContextRepository;
import org.springframework.security.web.csrf.CsrfException;
import org.springframework.security.web.header.writers.DelegatingRequestMatcherHeaderWriter;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;
import org.springframework.security.web.header.writers.frameoptions.XFrameOptionsHeaderWriter;
import org.springframework.security.web.servlet.util.matcher.PathPatternRequestMatcher;
import org.springframework.security.web.util.matcher.NegatedRequestMatcher;
import org.springframework.security.web.util.matcher.OrRequestMatcher;
import org.springframework.security.web.util.matcher.RequestMatcher;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.servlet.DispatcherServlet;
import org.springframework.web.servlet.FlashMap;
import org.springframework.web.servlet.FlashMapManager;
import org.springframework.web.servlet.support.SessionFlashMapManager;
import sarnik.app.audit.Act;
import sarnik.app.audit.ActLog;
import sarnik.app.web.PagePolicy;

/** Who may do what. Readers reach only what is listed for them; everything else is for authors. */
@Configuration(proxyBeanMethods = false)
class SecuritySetup {

    /**
     * What a bearer of a link reaches, and devices with the token of a feed. They bear no session, so nothing can be
     * done in somebody’s name.
     */
    private static final String[] BORNE = {"/shown/**", "/api/shown/**", "/readings/*"};

    private static final String ENDED = "/sign-in?ended";

    /** What ships with the application and is the same for everybody: for it no session is looked up. */
    private static final String[] FIXED = {
        "/css/**", "/js/**", "/read/**", "/vendor/**", "/fonts/**", "/ground/**", "/favicon.svg"
    };

    @Bean
    PasswordEncoder passwordEncoder() {
        return new Passwords();
    }

    @Bean
    SecurityFilterChain whoReachesWhat(
            HttpSecurity http,
            SignInWaits waits,
            Sessions sessions,
            ActLog acts,
            PersonRepository people,
            OutsideSignIn outside,
            List<OtherSignIn> others)
            throws Exception {
        http.authorizeHttpRequests(SecuritySetup::rules);
        outside.addTo(http);
        http.csrf(csrf -> csrf.ignoringRequestMatchers(BORNE)
                .ignoringRequestMatchers(
                        PathPatternRequestMatcher.withDefaults().matcher(HttpMethod.DELETE, "/api/questions")));
        http.formLogin(form -> form.loginPage("/sign-in")
                .loginProcessingUrl("/sign-in")
                .successHandler(new SavedRequestAwareAuthenticationSuccessHandler() {
                    @Override
                    public void onAuthenticationSuccess(
                            HttpServletRequest request,
                            HttpServletResponse response,
                            org.springframework.security.core.Authentication person)
                            throws ServletException, IOException {
                        waits.right(request.getParameter("username"), request.getRemoteAddr());
                        acts.keep(person.getName(), Act.Kind.SIGNED_IN, "signed in", request.getRemoteAddr());
                        sessions.begin(request, ((SignedIn) person.getPrincipal()).id());
                        String page = UnfinishedSignIn.pageFor((SignedIn) person.getPrincipal());
                        UnfinishedSignIn.lacks(request.getSession(), page);
                        if (page != null) response.sendRedirect(page);
                        else super.onAuthenticationSuccess(request, response, person);
                    }
                })
                .failureHandler((request, response, wrong) -> {
                    waits.wrong(request.getParameter("username"), request.getRemoteAddr());
                    String typed = request.getParameter("username");
                    // What nobody signs in as may be a password in the wrong line.
                    boolean known = typed != null && people.whoSignsInAs(typed).isPresent();
                    acts.keep(
                            known ? typed : "somebody unknown",
                            Act.Kind.KEPT_OUT,
                            "was kept out: sign-in and password do not fit",
                            request.getRemoteAddr());
                    response.sendRedirect("/sign-in?wrong");
                }));
        http.addFilterBefore(new Waiting(waits), UsernamePasswordAuthenticationFilter.class);
        http.addFilterBefore(new UnfinishedSignIn(), AuthorizationFilter.class);
        http.addFilterAfter(new Admitting(others), UsernamePasswordAuthenticationFilter.class);
        http.logout(out -> out.logoutUrl("/sign-out")
                .addLogoutHandler((request, response, person) -> {
                    if (person != null)
                        acts.keep(person.getName(), Act.Kind.SIGNED_IN, "signed out", request.getRemoteAddr());
                })
                .logoutSuccessUrl("/sign-in?out"));
        // A script that asks without a session gets an answer it can tell, not a page.
        http.exceptionHandling(refusal -> refusal.defaultAuthenticationEntryPointFor(
                        new HttpStatusEntryPoint(HttpStatus.UNAUTHORIZED),
                        PathPatternRequestMatcher.withDefaults().matcher("/api/**"))
                .defaultAuthenticationEntryPointFor(
                        new LoginUrlAuthenticationEntryPoint(ENDED),
                        request -> request.getRequestedSessionId() != null && !request.isRequestedSessionIdValid())
                .accessDeniedHandler(SecuritySetup::denied));
        headers(http);
        return http.build();
    }

    /**
     * What is sent with the token of a session that has ended: whoever sends it is told to sign in again, not that it
     * is forbidden.
     */
    private static void denied(HttpServletRequest request, HttpServletResponse response, AccessDeniedException denied)
            throws IOException, ServletException {
        boolean isSignedOut = denied instanceof CsrfException
                && SecurityContextHolder.getContext().getAuthentication() == null;
        if (!isSignedOut) new AccessDeniedHandlerImpl().handle(request, response, denied);
        else if (request.getRequestURI().startsWith("/api/")) response.sendError(HttpStatus.UNAUTHORIZED.value());
        else response.sendRedirect(ENDED);
    }

    @Bean
    @Order(Ordered.HIGHEST_PRECEDENCE)
    SecurityFilterChain whatShips(HttpSecurity http) throws Exception {
        http.securityMatcher(FIXED)
                .authorizeHttpRequests(request -> request.anyRequest().permitAll())
                .securityContext(nobody -> nobody.securityContextRepository(new NullSecurityContextRepository()))
                .anonymous(nobody -> nobody.disable())
                .sessionManagement(session -> session.disable())
                .csrf(form -> form.disable())
                .logout(out -> out.disable())
                .requestCache(cache -> cache.disable());
        headers(http);
        return http.build();
    }

    /** What is said once on the page after a form lies in the session; it is not looked for with what ships. */
    @Bean(DispatcherServlet.FLASH_MAP_MANAGER_BEAN_NAME)
    FlashMapManager saidOnce() {
        return new SessionFlashMapManager() {

            private final RequestMatcher ships = new OrRequestMatcher(Arrays.stream(FIXED)
                    .<RequestMatcher>map(PathPatternRequestMatcher.withDefaults()::matcher)
                    .toList());

            @Override
            protected List<FlashMap> retrieveFlashMaps(HttpServletRequest request) {
                return ships.matches(request) ? null : super.retrieveFlashMaps(request);
            }
        };
    }

    private static void headers(HttpSecurity http) throws Exception {
        http.headers(headers -> headers.contentSecurityPolicy(policy -> policy.policyDirectives(PagePolicy.own()))
                // Two pages of its own stand side by side in frames; nobody else frames them.
                // Frames of published pages are named in their policy, which this older header cannot say.
                .frameOptions(frames -> frames.disable())
                .addHeaderWriter(new DelegatingRequestMatcherHeaderWriter(
                        new NegatedRequestMatcher(
                                PathPatternRequestMatcher.withDefaults().matcher("/shown/**")),
                        new XFrameOptionsHeaderWriter(XFrameOptionsHeaderWriter.XFrameOptionsMode.SAMEORIGIN)))
                .referrerPolicy(referrer -> referrer.policy(ReferrerPolicy.SAME_ORIGIN)));
    }

    private static void rules(
            AuthorizeHttpRequestsConfigurer<HttpSecurity>.AuthorizationManagerRequestMatcherRegistry request) {
        request.requestMatchers("/sign-in", "/error")
                .permitAll()
                .requestMatchers(BORNE)
                .permitAll()
                .requestMatchers(HttpMethod.DELETE, "/api/questions")
                .permitAll()
                .requestMatchers(
                        "/people/**",
                        "/hosts/**",
                        "/databases/**",
                        "/grounds/**",
                        "/datasets/kept",
                        "/acts",
                        "/acts.csv")
                .hasRole("STEWARD")
                .requestMatchers(
                        HttpMethod.GET,
                        "/",
                        "/dashboards/*",
                        "/dashboards/*/beside",
                        "/me",
                        "/me/factor",
                        "/me/tokens",
                        "/sign-in/*",
                        "/api/openapi",
                        "/api/openapi.yaml",
                        "/api/dashboards",
                        "/api/dashboards/*",
                        "/api/dashboards/*/files/*",
                        "/api/dashboards/*/changes",
                        "/api/dashboards/*/amiss",
                        "/api/dashboards/*/views",
                        "/api/dashboards/*/visuals/*/layers/*/shapes/*",
                        "/api/boundary-sets/*/shapes/*",
                        "/api/grounds/**",
                        "/api/places",
                        "/api/sensorthings/v1.1/**")
                .authenticated()
                .requestMatchers(
                        HttpMethod.POST,
                        "/me",
                        "/me/**",
                        "/sign-in/*",
                        "/api/dashboards/*/frames",
                        "/api/dashboards/*/places/*",
                        "/api/dashboards/*/pictures",
                        "/api/dashboards/*/rows",
                        "/api/dashboards/*/filters/values",
                        "/api/dashboards/*/narrowings",
                        "/api/dashboards/*/amiss/*",
                        "/api/requests",
                        "/sign-out")
                .authenticated()
                .requestMatchers(HttpMethod.PUT, "/api/dashboards/*/views", "/api/dashboards/*/mark")
                .authenticated()
                .requestMatchers(HttpMethod.DELETE, "/api/dashboards/*/views/*")
                .authenticated()
                // Who may see an edition is asked when it is opened.
                .requestMatchers("/editions/**", "/api/editions/**")
                .authenticated()
                .anyRequest()
                .hasAnyRole("ANALYST", "STEWARD");
    }

    /** Requests that say by other means than a session who sends them: none is begun, and no cookie counts. */
    @Bean
    @Order(Ordered.HIGHEST_PRECEDENCE + 1)
    SecurityFilterChain whatProgramsReach(HttpSecurity http, List<OtherSignIn> others) throws Exception {
        http.securityMatcher(request -> others.stream().anyMatch(other -> other.isMeant(request)))
                .sessionManagement(session -> session.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                .csrf(csrf -> csrf.disable())
                .authorizeHttpRequests(SecuritySetup::rules)
                .addFilterBefore(new Admitting(others), AuthorizationFilter.class);
        return http.build();
    }

    /** Takes requests in that say by other means than a session who sends them. */
    private static final class Admitting extends OncePerRequestFilter {

        private final List<OtherSignIn> others;

        Admitting(List<OtherSignIn> others) {
            this.others = others;
        }

        @Override
        protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
                throws ServletException, IOException {
            for (OtherSignIn other : others) if (!other.admit(request, response)) return;
            chain.doFilter(request, response);
        }
    }

    /** Takes no try while it has to be waited, and says how long. */
    private static final class Waiting extends OncePerRequestFilter {

        private final SignInWaits waits;

        Waiting(SignInWaits waits) {
            this.waits = waits;
        }

        @Override
        protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
                throws ServletException, IOException {
            boolean isTry = request.getMethod().equals("POST")
                    && request.getRequestURI().equals("/sign-in");
            long seconds = isTry ? waits.seconds(request.getParameter("username"), request.getRemoteAddr()) : 0;
            if (seconds > 0) response.sendRedirect("/sign-in?wait=" + seconds);
            else chain.doFilter(request, response);
        }
    }
}
