package sarnik.app.people;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpMethod;
import org.springframework.http.HttpStatus;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.core.session.SessionRegistry;
import org.springframework.security.core.session.SessionRegistryImpl;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.authentication.HttpStatusEntryPoint;
import org.springframework.security.web.authentication.SavedRequestAwareAuthenticationSuccessHandler;
import org.springframework.security.web.authentication.UsernamePasswordAuthenticationFilter;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;
import org.springframework.security.web.servlet.util.matcher.PathPatternRequestMatcher;
import org.springframework.security.web.session.HttpSessionEventPublisher;
import org.springframework.web.filter.OncePerRequestFilter;
import sarnik.app.audit.Act;
import sarnik.app.audit.ActLog;

/** Who may do what. Readers reach only what is listed for them; everything else is for authors. */
@Configuration
class SecuritySetup {

    private static final String CONTENT_POLICY =
            "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data: blob:; "
                    + "font-src 'self'; connect-src 'self'; worker-src 'self'; base-uri 'none'; form-action 'self'; "
                    + "frame-src 'self'; frame-ancestors 'self'; object-src 'none'";

    @Bean
    PasswordEncoder passwordEncoder() {
        return new Passwords();
    }

    /** The sessions that are open, so that those of somebody can be ended. */
    @Bean
    SessionRegistry sessionRegistry() {
        return new SessionRegistryImpl();
    }

    @Bean
    static HttpSessionEventPublisher sessionEvents() {
        return new HttpSessionEventPublisher();
    }

    @Bean
    SecurityFilterChain rights(
            HttpSecurity http, SignInWaits waits, SessionRegistry sessions, ActLog acts, PersonRepository people)
            throws Exception {
        http.authorizeHttpRequests(request -> request.requestMatchers(
                        "/sign-in",
                        "/css/**",
                        "/js/**",
                        "/vendor/**",
                        "/fonts/**",
                        "/ground/**",
                        "/favicon.svg",
                        "/error")
                .permitAll()
                .requestMatchers("/people/**", "/hosts/**", "/grounds/**", "/acts", "/acts.csv")
                .hasRole("STEWARD")
                .requestMatchers(
                        HttpMethod.GET,
                        "/",
                        "/dashboards/*",
                        "/dashboards/*/beside",
                        "/me",
                        "/api/dashboards/*",
                        "/api/dashboards/*/files/*",
                        "/api/dashboards/*/views",
                        "/api/dashboards/*/visuals/*/layers/*/shapes/*",
                        "/api/boundary-sets/*/shapes/*",
                        "/api/grounds/**",
                        "/api/places")
                .authenticated()
                .requestMatchers(
                        HttpMethod.POST,
                        "/me",
                        "/api/dashboards/*/frames",
                        "/api/dashboards/*/places/*",
                        "/api/dashboards/*/pictures",
                        "/api/dashboards/*/rows",
                        "/api/dashboards/*/filters/values",
                        "/api/dashboards/*/narrowings",
                        "/sign-out")
                .authenticated()
                .requestMatchers(HttpMethod.PUT, "/api/dashboards/*/views")
                .authenticated()
                .requestMatchers(HttpMethod.DELETE, "/api/questions", "/api/dashboards/*/views/*")
                .authenticated()
                .anyRequest()
                .hasAnyRole("ANALYST", "STEWARD"));
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
                        super.onAuthenticationSuccess(request, response, person);
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
        http.sessionManagement(session -> session.maximumSessions(-1)
                .sessionRegistry(sessions)
                .expiredSessionStrategy(expired -> {
                    if (expired.getRequest().getRequestURI().startsWith("/api/"))
                        expired.getResponse().sendError(HttpStatus.UNAUTHORIZED.value());
                    else expired.getResponse().sendRedirect("/sign-in?ended");
                }));
        http.logout(out -> out.logoutUrl("/sign-out")
                .addLogoutHandler((request, response, person) -> {
                    if (person != null)
                        acts.keep(person.getName(), Act.Kind.SIGNED_IN, "signed out", request.getRemoteAddr());
                })
                .logoutSuccessUrl("/sign-in?out"));
        // A script that asks without a session gets an answer it can tell, not a page.
        http.exceptionHandling(refusal -> refusal.defaultAuthenticationEntryPointFor(
                new HttpStatusEntryPoint(HttpStatus.UNAUTHORIZED),
                PathPatternRequestMatcher.withDefaults().matcher("/api/**")));
        http.headers(headers -> headers.contentSecurityPolicy(policy -> policy.policyDirectives(CONTENT_POLICY))
                // Two pages of its own stand side by side in frames; nobody else frames them.
                .frameOptions(frames -> frames.sameOrigin())
                .referrerPolicy(referrer -> referrer.policy(ReferrerPolicy.SAME_ORIGIN)));
        return http.build();
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
